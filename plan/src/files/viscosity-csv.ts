import { quoted, type Read } from './read.ts';
import { parseQuantity } from '@wick/core/units/parse';
import type { QuantityName } from '@wick/core/units/quantities';

export type ViscosityPoints = { time: number; viscosity: number }[];

const MOST_ROWS = 2000;

/**
 * Reads time and viscosity from the first two columns of a CSV (comma, semicolon or tab; decimal comma allowed with the
 * latter two). Units stand in the heading, such as "time (min); viscosity (mPa s)"; without one: minutes and mPa s.
 */
export function readViscosityCsv(text: string): Read<ViscosityPoints> {
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .map((line, index) => ({ line: line.trim(), number: index + 1 }))
    .filter(({ line }) => line !== '');
  if (lines.length === 0) return refuse('The file is empty. It needs two columns, time and viscosity.');
  const separator = [';', '\t', ','].find((candidate) => lines[0]!.line.includes(candidate));
  if (!separator)
    return refuse(
      'Line 1 has one column only. Put time and viscosity side by side, parted by a comma or semicolon.',
    );
  const cells = (line: string) => line.split(separator).map((cell) => cell.trim().replace(/^"|"$/g, ''));
  const isNumber = (cell: string | undefined) =>
    cell !== undefined && Number.isFinite(Number(decimal(cell))) && cell !== '';
  const head = isNumber(cells(lines[0]!.line)[0]) ? null : cells(lines[0]!.line);
  const rows = head ? lines.slice(1) : lines;
  if (rows.length < 2) return refuse('The file holds fewer than two points. A curve needs two at least.');
  if (rows.length > MOST_ROWS)
    return refuse(`The file holds ${rows.length} points; ${MOST_ROWS} are plenty. Thin it out.`);
  const units = [unitIn(head?.[0], 'min'), unitIn(head?.[1], 'mPa s')] as const;
  const points: ViscosityPoints = [];
  for (const { line, number } of rows) {
    const [first, second] = cells(line);
    const time = read(first, units[0], 'duration');
    const viscosity = read(second, units[1], 'viscosity');
    if (time === null || viscosity === null)
      return refuse(
        `Line ${number} reads ${quoted(line)}, which is not a time and a viscosity. Correct or delete it.`,
      );
    const before = points[points.length - 1];
    if (!(viscosity > 0) || !(time >= 0) || (before && time <= before.time))
      return refuse(`Line ${number}: times must rise and viscosities lie above zero. Correct or delete it.`);
    points.push({ time, viscosity });
  }
  return { ok: true, value: points };
}

function read(cell: string | undefined, unit: string, quantity: QuantityName): number | null {
  if (cell === undefined || cell === '') return null;
  const parsed = parseQuantity(`${decimal(cell)} ${unit}`, quantity);
  return parsed.ok ? parsed.value : null;
}

const decimal = (cell: string) => cell.replace(',', '.');
const unitIn = (heading: string | undefined, usual: string) =>
  /[([]([^)\]]+)[)\]]/
    .exec(heading ?? '')?.[1]
    ?.replace(/[.·]/g, ' ')
    .trim() ?? usual;

function refuse(message: string): { ok: false; code: 'BAD_REQUEST'; message: string } {
  return { ok: false, code: 'BAD_REQUEST', message };
}
