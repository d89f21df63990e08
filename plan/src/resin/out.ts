import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import writeWorkbook from 'write-excel-file/universal';
import { writeCsv, type Cell } from '../files/csv.ts';
import type { LaidJob } from '../job/laid.ts';
import { batchesOf, type SetBatch } from './batches.ts';
import { drawOf } from './draw.ts';
import { ledgerOf } from './ledger.ts';
import { potsOf } from './pots.ts';
import { mixSheetOf } from './sheet.ts';

/** Ledger, batches and what to weigh, as tables; masses kg, times min from first mix. */
export interface ResinTables {
  readonly ledger: Cell[][];
  readonly batches: Cell[][];
}

const grams = (mass: number) => Math.round(1e3 * mass) / 1e3;
const minutes = (time: number) => Math.round(time / 6) / 10;
const whereWords = { part: 'part', waste: 'thrown away', pot: 'stays in pot' } as const;

/** Batches by what each pot has to give where there is a forecast, else by an even share. */
export function batchesWith(job: LaidJob, shop: Shop, flow: FlowForecast | null): SetBatch[] {
  const draw = flow && drawOf(job, shop, flow);
  return batchesOf(job, shop, draw ? draw.pots.map(({ total }) => total) : null);
}

/** Null where the laminate does not tell yet. */
export function resinTables(job: LaidJob, shop: Shop, flow: FlowForecast | null): ResinTables | null {
  const ledger = ledgerOf(job, shop, flow);
  if (!ledger) return null;
  const batches = batchesWith(job, shop, flow);
  const pots = potsOf(job);
  return {
    ledger: [
      ['what', 'mass_kg', 'where'],
      ...ledger.rows.map(({ name, mass, where }): Cell[] => [name, grams(mass), whereWords[where]]),
      ['Total', grams(ledger.total), ''],
      ['of it resin', grams(ledger.resin), ''],
      ['of it hardener', grams(ledger.hardener), ''],
      ['Quick rule: fibre and a kilogram', grams(ledger.quickRule), ''],
    ],
    batches: [
      [
        'batch',
        'pot',
        'mix_at_min',
        'in_pot_at_min',
        'mass_kg',
        'resin_kg',
        'hardener_kg',
        'hardener_from_kg',
        'hardener_to_kg',
      ],
      ...batches.map((batch, n): Cell[] => {
        const sheet = mixSheetOf(job, shop, batches, n);
        return [
          n + 1,
          pots[batch.pot]!.name,
          minutes(batch.mixedAt),
          minutes(batch.pouredAt),
          grams(batch.mass),
          sheet && grams(sheet.masses.resin),
          sheet && grams(sheet.masses.hardener),
          sheet && grams(sheet.hardenerFrom),
          sheet && grams(sheet.hardenerTo),
        ];
      }),
    ],
  };
}

/** Both tables one after the other. */
export const resinCsv = ({ ledger, batches }: ResinTables): string =>
  [ledger, batches].map(writeCsv).join('\r\n\r\n');

/** A sheet each. */
export function resinWorkbook({ ledger, batches }: ResinTables): Promise<Blob> {
  const sheetOf = (sheet: string, rows: Cell[][]) => ({
    sheet,
    data: rows.map((row, n) =>
      row.map((value) =>
        value === null ? null : { value, ...(n === 0 ? { fontWeight: 'bold' as const } : {}) },
      ),
    ),
    stickyRowsCount: 1,
  });
  return writeWorkbook([sheetOf('Ledger', ledger), sheetOf('Batches', batches)]).toBlob();
}
