import writeWorkbook from 'write-excel-file/universal';
import { writeCsv, type Cell } from '../files/csv.ts';
import type { TakeOff } from './take-off.ts';
import type { TakenItem, TakenUnit } from './taken.ts';

const units: Readonly<Record<TakenUnit, string>> = { area: 'm2', length: 'm', mass: 'kg', piece: 'pieces' };
const phases: Readonly<Record<TakenItem['phase'], string>> = {
  plies: 'Plies and core',
  stack: 'On the plies',
  lines: 'Lines and hoses',
  resin: 'Resin',
  hands: 'Hands',
};

const HEADINGS = [
  'phase',
  'what',
  'amount',
  'unit',
  'weight_kg',
  'cost',
  'in_stock',
  'to_buy',
  'comes_back',
  'for',
];
const round = (value: number | null) => (value === null ? null : Math.round(1e3 * value) / 1e3);

/** In order of use, a row a thing; numbers to the gram and the millimetre. */
export function takeOffRows({ items }: TakeOff): Cell[][] {
  return [
    HEADINGS,
    ...items.map((item): Cell[] => [
      phases[item.phase],
      item.name,
      round(item.amount),
      units[item.unit],
      round(item.weight),
      item.cost === null ? null : Math.round(100 * item.cost) / 100,
      round(item.shelf?.inStock ?? null),
      round(item.shelf?.toBuy ?? null),
      item.comesBack ? 'yes' : '',
      item.why,
    ]),
  ];
}

export const takeOffCsv = (takeOff: TakeOff): string => writeCsv(takeOffRows(takeOff));

/** The kit list as an XLSX workbook. */
export function takeOffWorkbook(takeOff: TakeOff): Promise<Blob> {
  const data = takeOffRows(takeOff).map((row, n) =>
    row.map((value) =>
      value === null ? null : { value, ...(n === 0 ? { fontWeight: 'bold' as const } : {}) },
    ),
  );
  return writeWorkbook([{ sheet: 'Kit list', data, stickyRowsCount: 1 }]).toBlob();
}

export const phaseWords = phases;
export const unitWords = units;
