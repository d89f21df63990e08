import { quantityOf, unitOf, type QuantityName, type Unit } from './quantities.ts';

export interface ParseContext {
  /** Unit meant when none is typed; the quantity's usual one otherwise. */
  readonly unit?: string;
  /** Ambient absolute pressure, Pa; needed to turn a vacuum reading into an absolute pressure and back. */
  readonly ambientPressure?: number;
}

export type Parsed =
  | { readonly ok: true; readonly value: number }
  | {
      readonly ok: false;
      readonly message: string;
      /** What may be meant, each as it is typed without a doubt. */
      readonly meanings?: readonly string[];
    };

const NUMBER = String.raw`[+-]?(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)`;
const TOKEN = new RegExp(
  String.raw`^\s*(${NUMBER})\s*([^\d+\-.,][^\d]*?(?:\d(?=\s*$|\s+[\d.]))?)?\s*(?=$|[\d+\-.])`,
  'i',
);
const REFERENCE = /\s*\b(abs(?:olute)?|vac(?:uum)?|gauge|g)\.?$/i;

/**
 * Reads a quantity as a person in the trade types it: "26 inHg", "0.79mm", "12oz/yd2", "1/32 in", "1 h 30 min", "0,5 mm".
 * @returns the coherent SI value, or one sentence that shows an example
 * A pressure in inHg, or marked "vac" or "gauge", is read as vacuum below ambient; other pressures, or those marked "abs",
 * are absolute. For gaugePressure an unmarked pressure is below ambient. What people mean different things by is asked back: a
 * pressure below zero, pounds a square inch, and inches of mercury as many as a barometer shows.
 */
export function parseQuantity(text: string, name: QuantityName, context: ParseContext = {}): Parsed {
  const isPressure = name === 'absolutePressure' || name === 'gaugePressure';
  let rest = text.trim().replace(/^−/, '-');
  let reference: string | undefined;
  if (isPressure) {
    const mark = REFERENCE.exec(rest);
    if (mark) {
      reference = mark[1]!.toLowerCase().startsWith('abs') ? 'absolute' : 'gauge';
      rest = rest.slice(0, mark.index);
    }
  }
  const sum = sumOfParts(rest, name, context.unit);
  if (!sum) return refuse(text, name);
  if (!isPressure) return { ok: true, value: sum.value };
  const asked = reference === undefined && askBack({ text: rest, ...sum }, name, context.ambientPressure);
  if (asked) return asked;
  const readAs = reference ?? (name === 'gaugePressure' || sum.unit.symbol === 'inHg' ? 'gauge' : 'absolute');
  const wanted = name === 'gaugePressure' ? 'gauge' : 'absolute';
  if (readAs === wanted) return { ok: true, value: sum.value };
  const ambient = context.ambientPressure;
  if (ambient === undefined)
    return {
      ok: false,
      message: `“${text.trim()}” needs the ambient pressure; set the shop’s altitude first.`,
    };
  if (sum.value > ambient)
    return {
      ok: false,
      message: `“${text.trim()}” is more than the air weighs here (${inUnit(ambient, sum.unit)}). Read the gauge again, or type an absolute pressure such as “20 mbar abs”.`,
    };
  return { ok: true, value: ambient - sum.value };
}

/** The question to ask where a pressure without a mark means different things to people. */
function askBack(
  { text, value, unit }: { text: string; value: number; unit: Unit },
  name: QuantityName,
  ambient = STANDARD_AMBIENT,
): Parsed | null {
  const typed = text.trim();
  const bare = typed.replace(/^[-−]\s*/, '');
  if (value < 0)
    return {
      ok: false,
      message: `“${typed}”: is that what a gauge shows, ${bare} below the air outside?`,
      meanings: [`${bare} vac`],
    };
  if (name !== 'absolutePressure') return null;
  if (unit.symbol === 'inHg' && value > BAROMETER * ambient)
    return {
      ok: false,
      message: `“${typed}”: a gauge shows no more than ${inUnit(ambient, unit)} here. Is it a barometer’s, so absolute?`,
      meanings: [`${bare} abs`],
    };
  if (unit.symbol === 'psi')
    return {
      ok: false,
      message: `“${typed}”: left under the bag, or below the air outside?`,
      meanings: [`${bare} abs`, `${bare} vac`],
    };
  return null;
}

/** Pa; where nobody has said how high the shop stands. */
const STANDARD_AMBIENT = 101_325;
/** Share of the ambient pressure from which on inches of mercury are a barometer's rather than a gauge's. */
const BAROMETER = 0.995;

/** Adds up "3 ft 4 in"-like parts; null when any part does not belong to the quantity. */
function sumOfParts(text: string, name: QuantityName, unit?: string): { value: number; unit: Unit } | null {
  let rest = decimalPoint(text);
  let total = 0;
  let last: Unit | undefined;
  let count = 0;
  while (rest.trim() !== '') {
    const match = TOKEN.exec(rest);
    if (!match) return null;
    const found = match[2] ? findUnit(match[2], name) : count === 0 ? unitOf(name, unit) : undefined;
    if (!found) return null;
    const number = readNumber(match[1]!);
    if (!Number.isFinite(number) || (count > 0 && (number < 0 || found.offset !== undefined))) return null;
    total += number * found.factor + (found.offset ?? 0);
    last = found;
    count += 1;
    rest = rest.slice(match[0].length);
  }
  return last && Number.isFinite(total) ? { value: total, unit: last } : null;
}

function decimalPoint(text: string): string {
  return /^[^.,]*,[^.,]*$/.test(text) ? text.replace(',', '.') : text;
}

function readNumber(text: string): number {
  const mixed = /^([+-]?)(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (!mixed) return Number(text);
  const magnitude = Number(mixed[2] ?? 0) + Number(mixed[3]) / Number(mixed[4]);
  return mixed[1] === '-' ? -magnitude : magnitude;
}

function findUnit(text: string, name: QuantityName): Unit | undefined {
  const plain = (word: string) =>
    word
      .toLowerCase()
      .replace(/[\s·.]+/g, '')
      .replace(/²/g, '2')
      .replace(/³/g, '3')
      .replace(/°/g, '');
  const units = quantityOf(name).units;
  const exact = units.find((unit) => unit.symbol === text.trim());
  return (
    exact ??
    units.find(
      (unit) =>
        [unit.symbol, ...(unit.aliases ?? [])].some(
          (word) => plain(word) === plain(text) && plain(text) !== '',
        ) ||
        (unit.symbol === '°' && text.trim() === '°'),
    )
  );
}

function refuse(text: string, name: QuantityName): Parsed {
  const { label, example } = quantityOf(name);
  const shown = text.trim().slice(0, 40);
  return {
    ok: false,
    message:
      shown === ''
        ? `Type a ${label}, for example ${example}.`
        : `“${shown}” is not a ${label} this field knows. Type it like ${example}.`,
  };
}

function inUnit(value: number, unit: Unit): string {
  return `${(value / unit.factor).toFixed(unit.decimals)} ${unit.symbol}`;
}
