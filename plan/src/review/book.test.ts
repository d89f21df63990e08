import { describe, expect, test } from '@jest/globals';
import type { BookLine } from '@wick/contract/review';
import { newEntrySchema, type Entry } from '@wick/contract/run/run';
import { demoMaterials } from '../demo/materials.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoRuns } from '../demo/runs.ts';
import { usualSteps } from '../card/usual-steps.ts';
import { frontMark, minuteAt, plate, plateShapes, shop, under } from '../infusion/test/plate.ts';
import { runStateOf } from '../run/state.ts';
import { bookedOf } from './book.ts';
import { causesOf } from './causes/rank-run.ts';
import { fillReviewOf } from './fill-review.ts';
import { baseOf, sidesOf } from './learned-values.ts';
import { offersOf } from './learning.ts';
import { comparedOf } from './measured.ts';
import { allParts, bookCsv, filtered, measures, seriesOf, sumsOf, valueOf } from './over-time.ts';
import { plannedWords } from './compared.ts';
import { reportOf } from './report.ts';

const plan = () => plateShapes()[0]!;
const wet = () => minuteAt(plan(), plan().lastPlace);
const made = () =>
  under([
    frontMark(plan(), 0.4, 0.2),
    [wet(), { kind: 'allWet' }],
    [wet() + 5000, { kind: 'weighed', what: 'part', mass: 3, flange: 'off', isTrimmed: true }],
    [
      wet() + 5001,
      {
        ...{
          kind: 'finding',
          is: 'pinholes',
          side: 'mould',
          form: 'area',
          size: null,
          pattern: 'fan',
          note: '',
        },
        path: [
          { x: 0.1, y: 0.1 },
          { x: 0.3, y: 0.1 },
          { x: 0.2, y: 0.3 },
        ],
        photoIds: [],
      },
    ],
  ]);
function bookedNow() {
  const { state } = made();
  const fill = fillReviewOf({ job: plate, shop, state, readings: [], shapes: plateShapes() });
  return bookedOf({
    ...{ job: plate, mould: null, state, fill, compared: comparedOf(plate, shop, state, fill), answers: {} },
    ...{
      causes: causesOf({}, { edits: shop.causes, before: [] }).ranked,
      evidence: [],
      outcome: 'rework',
      cost: 40,
    },
  });
}

describe('into the book', () => {
  test('planned and measured, findings counted, and it is an entry that the server takes', () => {
    const booked = bookedNow();
    expect(booked.figures.fill.measured).toBeCloseTo(wet(), 0);
    expect(booked.figures.weight.measured).toBe(3);
    expect(booked.figures.findings).toEqual({ pinholes: 1 });
    expect(booked.causes).toHaveLength(3);
    const entry = {
      id: 'x',
      at: '2026-03-14T09:00:00.000Z',
      by: 'Ada',
      body: JSON.parse(JSON.stringify(booked)) as unknown,
    };
    expect(newEntrySchema.safeParse(entry).success).toBe(true);
  });
});

const line = (number: number, more: Partial<BookLine['figures']> = {}): BookLine => ({
  ...{ runId: `r${number}`, jobId: 'j', jobName: 'Plate', number, kind: 'part', by: 'Ada' },
  ...{
    startedAt: `2026-01-0${number}T08:00:00.000Z`,
    bookedAt: `2026-01-0${number}T18:00:00.000Z`,
    evidence: [],
  },
  figures: { ...bookedNow().figures, ...more },
});

describe('over time', () => {
  const lines = [
    line(1, { fill: { planned: 100, measured: 120 }, outcome: 'good', cost: null }),
    line(2, { fill: { planned: 100, measured: null }, outcome: 'scrap', cost: 300, causeId: 'leak' }),
    line(3, { fill: { planned: 0, measured: 10 }, mouldId: 'm', materials: [{ id: 'a', name: 'A' }] }),
  ];
  test('what was not measured is left out, never counted as nothing', () => {
    expect(lines.map((one) => valueOf(one, 'fill'))).toEqual([1.2, null, null]);
    expect(seriesOf(lines, 'fill')).toMatchObject({ points: [{ value: 1.2 }], chart: null });
    expect(valueOf(lines[0]!, 'findings')).toBe(1);
    for (const measure of measures) expect(seriesOf([], measure)).toEqual({ points: [], chart: null });
  });

  test('filters, sums, and how often the forecast held', () => {
    expect(filtered(lines, { ...allParts, mouldId: 'm' })).toEqual([lines[2]]);
    expect(filtered(lines, { ...allParts, materialId: 'a' })).toEqual([lines[2]]);
    expect(filtered(lines, allParts)).toEqual(lines);
    const held = sumsOf([
      line(4, { fillRange: { early: 90, late: 130 }, fill: { planned: 100, measured: 120 } }),
      line(5, { fillRange: { early: 90, late: 110 }, fill: { planned: 100, measured: 120 } }),
    ]);
    expect(held).toMatchObject({ asked: 2, held: 1 });
    expect(sumsOf(lines)).toMatchObject({
      parts: 3,
      scrap: 1,
      cost: 340,
      causes: [{ name: 'The bag leaked', count: 1 }],
    });
  });

  test('the table has a row a part and as many cells in each', () => {
    const rows = bookCsv(lines).trim().split(/\r?\n/);
    expect(rows).toHaveLength(4);
    expect(new Set(rows.map((row) => row.split(',').length)).size).toBe(1);
  });
});

describe('the record', () => {
  const run = {
    id: 'r',
    jobId: 'j',
    number: 2,
    kind: 'part',
    speed: 1,
    seed: 0,
    startedAt: '2026-03-14T08:00:00.000Z',
    endedAt: null,
  } as const;
  const request = (entries: readonly Entry[]) => ({
    ...{ run, entries, instruments: [], readings: [], width: 500 },
    plan: {
      ...{
        number: 1,
        takenAt: run.startedAt,
        jobRevision: 1,
        job: demoJobs[2]!,
        shop: demoShop,
        mould: null,
      },
      ...{ stepsRevision: 1, steps: usualSteps },
    },
  });
  test('has what was found, measured and concluded, and the date of the last word alone', () => {
    const { entries } = made();
    const at = entries.at(-1)!.at;
    const booked: Entry = { ...entries[0]!, id: 'b', at, order: 99, body: bookedNow() };
    const report = reportOf(request([...entries, booked]));
    expect(report.date).toBe(at);
    const text = JSON.stringify(report);
    for (const words of [
      'Pinholes, in a fan from one place',
      'All wet',
      'The bag leaked',
      'rework, cost 40',
      'part 2',
    ])
      expect(text).toContain(words);
    expect(reportOf(request([...entries, booked]))).toEqual(report);
    expect(JSON.stringify(reportOf(request(entries)))).toContain('not been put into the book yet');
  });

  test('a drawing names nothing that could be code', () => {
    const { entries } = made();
    const svgs = reportOf({
      ...request(entries),
      readings: [
        { at: 1, pressure: 2000 },
        { at: 60_001, pressure: 2500 },
      ],
    }).sections.flatMap(({ blocks }) => blocks.flatMap((block) => (block.kind === 'svg' ? [block.svg] : [])));
    expect(svgs).toHaveLength(2);
    for (const svg of svgs) expect(svg).not.toMatch(/NaN|undefined|<script|javascript:/);
  });

  test('a range says where it has no end', () => {
    const show = (value: number | null) => `${value}`;
    expect(plannedWords({ early: null, middle: 5, late: 7 }, 'number', show)).toBe('at most 7');
    expect(plannedWords({ early: 3, middle: null, late: null }, 'number', show)).toBe(
      'from 3, or not before gel',
    );
    expect(plannedWords({ early: null, middle: null, late: null }, 'number', show)).toBe('not before gel');
  });
});

describe('the demo’s own parts', () => {
  test('every entry is one that the server takes, with ids of its own, in order of happening', () => {
    const ids = demoRuns.flatMap(({ entries }) => entries.map(({ id }) => id));
    expect(new Set(ids).size).toBe(ids.length);
    for (const { entries } of demoRuns) {
      for (const entry of entries) expect(newEntrySchema.safeParse(entry).error?.issues ?? []).toEqual([]);
      expect(entries.map(({ at }) => at)).toEqual(entries.map(({ at }) => at).sort());
      expect(
        runStateOf(
          entries.map((entry, order): Entry => ({
            ...entry,
            order,
            runId: 'r',
            writtenAt: entry.at,
            device: '',
          })),
        ).shutTimes[0]?.judged,
      ).toBeTruthy();
    }
  });

  test('what they tell is of the library’s entries as they are: run plan/bench/demo-runs.ts when this fails', () => {
    const book = demoRuns.flatMap(({ id, entries }) =>
      entries.flatMap(({ body }) => (body.kind === 'booked' ? [{ runId: id, evidence: body.evidence }] : [])),
    );
    expect(book).toHaveLength(demoRuns.length - 1);
    const bases = new Set(
      demoMaterials.flatMap((material) => sidesOf(material).map((side) => baseOf(material, side))),
    );
    for (const { evidence } of book)
      for (const { parts } of evidence) for (const { base } of parts) expect(bases.has(base)).toBe(true);
    const mesh = offersOf(demoMaterials, book).find(({ side }) => side === 'permeability')!;
    expect(mesh.factor).toBeLessThan(0.9);
    expect(mesh.doubt).toBeLessThan(mesh.now.doubt);
  });
});
