import { expect, test } from '@jest/globals';
import type { Entry, EntryBody, Run } from '@wick/contract/run/run';
import { formatQuantity } from '@wick/core/units/format';
import { quantityOf } from '@wick/core/units/quantities';
import Papa from 'papaparse';
import { logCsv, logJson, logRows } from './log-out.ts';
import { isQuiet, logWords } from './log-words.ts';
import type { LogWriting } from './log-writing.ts';

const said = (body: EntryBody, n = 1): Entry => ({
  ...{ id: `e${n}`, runId: 'r', by: 'Ada', device: 'tablet', order: n, body },
  ...{ at: `2026-03-14T09:0${n}:00.000Z`, writtenAt: `2026-03-14T09:1${n}:00.000Z` },
});
const writing = (entries: readonly Entry[] = []): LogWriting => ({
  show: (value, name) => formatQuantity(value, name, quantityOf(name).usual),
  instrumentName: (id) => `Gauge ${id}`,
  lineName: (id) => `Line ${id}`,
  find: (id) => entries.find((entry) => entry.id === id),
});

test('an entry about another names it', () => {
  const timer = said(
    {
      kind: 'timer',
      word: 'Release is ready',
      stepId: null,
      endsWith: null,
      opens: 2700,
      closes: 3600,
      slides: null,
    },
    1,
  );
  const due = said({ kind: 'due', timerId: 'e1', what: 'closed' }, 2);
  const comb = said({ kind: 'comb', pass: 4, x: 0.1, y: 0.2, film: 0.5e-3 }, 3);
  const struck = said({ kind: 'struck', entryId: 'e3', why: 'wrong tooth' }, 4);
  const all = [timer, due, comb, struck];
  expect(all.map((entry) => logWords(entry, writing(all)))).toEqual([
    'Clock “Release is ready”: 45 min, closes after 60 min',
    'It has closed “Release is ready”',
    'Comb after pass 4: 0.5 mm',
    'Struck out “Comb after pass 4: 0.5 mm”: wrong tooth',
  ]);
  expect(all.map(isQuiet)).toEqual([true, false, false, false]);
  expect(
    logWords(
      said({ kind: 'overruled', holdId: 'tight', title: 'The bag holds', why: 'gauge is broken' }),
      writing(),
    ),
  ).toBe('Went on past “The bag holds”: gauge is broken');
});

test('as a table every entry is there once, in order, what was struck out marked, and no text is a formula', () => {
  const entries = [
    said({ kind: 'note', text: '=HYPERLINK("x")' }, 1),
    said({ kind: 'comb', pass: 1, x: 0, y: 0, film: 1e-4 }, 2),
    said({ kind: 'struck', entryId: 'e2', why: '' }, 3),
  ];
  const rows = logRows(entries, writing(entries));
  expect(rows.slice(1).map(([order]) => order)).toEqual([1, 2, 3]);
  expect(rows[2]![7]).toBe('Ada');
  // Read by a general parser.
  const read = Papa.parse<Record<string, string>>(logCsv(entries, writing(entries)), { header: true }).data;
  expect(read.map(({ kind }) => kind)).toEqual(['note', 'comb', 'struck']);
  expect(read[0]!.what).toBe('\'=HYPERLINK("x")');
  expect(JSON.parse(read[1]!.details!)).toEqual({ pass: 1, x: 0, y: 0, film: 1e-4 });
  expect(read[0]!.happened_at).toBe('2026-03-14T09:01:00.000Z');
});

test('as JSON it is what is stored', () => {
  const run: Run = {
    id: 'r',
    jobId: 'j',
    number: 1,
    kind: 'part',
    speed: 1,
    seed: 0,
    startedAt: '2026-03-14T09:00:00.000Z',
    endedAt: null,
  };
  const entries = [said({ kind: 'pull' })];
  expect(JSON.parse(logJson(run, entries))).toEqual({ format: 'vivid-wick-log', version: 1, run, entries });
});
