import type { Entry, Run } from '@wick/contract/run/run';
import { writeCsv, type Cell } from '../files/csv.ts';
import { logWords } from './log-words.ts';
import type { LogWriting } from './log-writing.ts';

/** Every entry of a run as a table, in the order in which they came in; one that was struck out says so. */
export function logRows(entries: readonly Entry[], writing: LogWriting): Cell[][] {
  const struckBy = new Map(
    entries.flatMap(({ by, body }) => (body.kind === 'struck' ? [[body.entryId, by] as const] : [])),
  );
  return [
    ['order', 'happened_at', 'written_at', 'by', 'device', 'kind', 'what', 'struck_out_by', 'details'],
    ...entries.map((entry): Cell[] => {
      const { kind, ...details } = entry.body;
      return [
        ...[entry.order, entry.at, entry.writtenAt, entry.by, entry.device, kind, logWords(entry, writing)],
        ...[struckBy.get(entry.id) ?? '', JSON.stringify(details)],
      ];
    }),
  ];
}

export const logCsv = (entries: readonly Entry[], writing: LogWriting): string =>
  writeCsv(logRows(entries, writing));

/** A run with all that was said in it, as it is stored. */
export const logJson = (run: Run, entries: readonly Entry[]): string =>
  `${JSON.stringify({ format: 'vivid-wick-log', version: 1, run, entries }, null, 2)}\n`;
