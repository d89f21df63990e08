import { quoted, sentenceOf } from '../files/read.ts';
import {
  clockLineSchema,
  MOST_LINES,
  readable,
  readingLineSchema,
  type Instrument,
  type Reading,
} from '@wick/contract/run/instrument';
import { formatQuantity } from '@wick/core/units/format';
import { quantityOf, type Unit } from '@wick/core/units/quantities';

export interface ReadLines {
  readonly readings: Reading[];
  readonly refused: { readonly line: number; readonly why: string }[];
  /** By which the device's clock is behind, s; null where it did not say what it shows. */
  readonly clockOffset: number | null;
}

/** A clock may differ by so much before it counts as wrong, ms; and a reading may lie so far back. */
const AHEAD = 5000;
const LONGEST_BACK = 400 * 86_400_000;

/**
 * Reads what a device posts: one JSON object a line, readings and what its clock shows. A line that cannot be taken is named with why
 * and harms no other.
 * @param receivedAt ms since 1970, by the server's clock
 */
export function readReadingLines(
  text: string,
  instrument: Pick<Instrument, 'measures' | 'unit'>,
  receivedAt: number,
): ReadLines {
  const found: { -readonly [K in keyof ReadLines]: ReadLines[K] } = {
    readings: [],
    refused: [],
    clockOffset: null,
  };
  const lines = text.split('\n');
  if (lines.at(-1) === '') lines.pop();
  lines.forEach((line, index) => {
    const refuse = (why: string) => void found.refused.push({ line: index + 1, why });
    if (line.trim() === '') return;
    if (index >= MOST_LINES) {
      if (index === MOST_LINES)
        refuse(`A batch has up to ${MOST_LINES} lines. Send this one and all after it in the next.`);
      return;
    }
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      const isLast = index === lines.length - 1 && !text.endsWith('\n');
      return refuse(
        isLast
          ? `${quoted(line)} is half a line. Send it again whole, with a line end.`
          : `${quoted(line)} is not JSON.`,
      );
    }
    if (value !== null && typeof value === 'object' && 'now' in value) {
      const clock = clockLineSchema.safeParse(value);
      if (!clock.success) return refuse(sentenceOf(clock.error));
      found.clockOffset = (receivedAt - Date.parse(clock.data.now)) / 1000;
      return;
    }
    const read = readingOf(value, instrument, receivedAt, found.clockOffset);
    if (typeof read === 'string') refuse(read);
    else found.readings.push(read);
  });
  return found;
}

function readingOf(
  value: unknown,
  { measures, unit: own }: Pick<Instrument, 'measures' | 'unit'>,
  receivedAt: number,
  clockOffset: number | null,
): Reading | string {
  const line = readingLineSchema.safeParse(value);
  if (!line.success) return sentenceOf(line.error);
  const { id, at: read, ago, value: number, unit: named } = line.data;
  const unit = unitNamed(measures, named ?? own);
  if (!unit)
    return `${quoted(named)} is no unit of ${quantityOf(measures).label}. Known are ${unitsOf(measures)}.`;
  const si = number * unit.factor + (unit.offset ?? 0);
  const fault = faultOfValue(si, measures, `${number} ${unit.symbol}`);
  if (fault) return fault;
  const shift = clockOffset !== null && Math.abs(clockOffset) * 1000 > AHEAD / 5 ? clockOffset * 1000 : 0;
  const at = ago === undefined ? Date.parse(read!) + shift : receivedAt - ago * 1000;
  if (at > receivedAt + AHEAD)
    return `The time ${read} lies ${spanWords(at - receivedAt)} ahead of this server. Send {"now": …} first, with what the device’s clock shows, or set it.`;
  if (at < receivedAt - LONGEST_BACK)
    return `The time ${read ?? ''} lies ${spanWords(receivedAt - at)} back. Set the clock of the device.`;
  return { id, at: Math.round(at), value: si };
}

/** What is wrong with a value of an instrument; null where it can be. @param value SI  @param said as it was sent */
export function faultOfValue(
  value: number,
  measures: Instrument['measures'],
  said = formatQuantity(value, measures),
): string | null {
  const [low, high] = readable[measures];
  if (value >= low && value <= high) return null;
  return `${said} cannot be read as ${quantityOf(measures).label} here: it lies outside ${formatQuantity(low, measures)} to ${formatQuantity(high, measures)}. Check the unit.`;
}

const simple = (text: string) => text.trim().toLowerCase();
const unitNamed = (measures: Instrument['measures'], name: string): Unit | undefined =>
  quantityOf(measures).units.find(({ symbol, aliases = [] }) =>
    [symbol, ...aliases].some((one) => simple(one) === simple(name)),
  );
const unitsOf = (measures: Instrument['measures']) =>
  quantityOf(measures)
    .units.map(({ symbol }) => symbol)
    .join(', ');

function spanWords(ms: number): string {
  const s = Math.abs(ms) / 1000;
  if (s < 120) return `${Math.round(s)} s`;
  if (s < 7200) return `${Math.round(s / 60)} min`;
  return s < 172_800 ? `${Math.round(s / 3600)} h` : `${Math.round(s / 86_400)} days`;
}
