/** Places of a curve: ms since 1970, and values in the unit that is shown. */
export interface ChartCurve {
  readonly id: string;
  readonly label: string;
  readonly kind: 'measured' | 'forecast' | 'leak' | 'moisture' | 'sum';
  readonly ats: readonly number[];
  readonly values: readonly number[];
  readonly lows?: readonly number[];
  readonly highs?: readonly number[];
}
export interface ChartLine {
  readonly label: string;
  readonly value: number;
  readonly tone: 'tide' | 'ember';
}
export interface ChartMark {
  readonly at: number;
  readonly label: string;
}

/** A stretch of time, ms since 1970. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

export interface Range {
  readonly low: number;
  readonly high: number;
}

/** On a scale of decades nothing lies lower. */
const LEAST_LOG = 1e-3;

/** Lowest and highest of what is in sight, with room to either side; lines count where they are near. */
export function rangeInSight(
  curves: readonly ChartCurve[],
  lines: readonly ChartLine[],
  { from, to }: Stretch,
  isLog: boolean,
): Range {
  let [low, high] = [Infinity, -Infinity];
  const see = (value: number) => {
    if (!Number.isFinite(value)) return;
    low = Math.min(low, value);
    high = Math.max(high, value);
  };
  for (const { ats, values, lows, highs } of curves)
    for (let n = 0; n < ats.length; n++)
      if (ats[n]! >= from && ats[n]! <= to) {
        see(lows?.[n] ?? values[n]!);
        see(highs?.[n] ?? values[n]!);
      }
  if (low > high) [low, high] = [0, 1];
  for (const { value } of lines) if (isLog || (value < 2 * high && value > low / 2)) see(value);
  if (isLog) return { low: Math.max(LEAST_LOG, low / 1.3), high: Math.max(LEAST_LOG * 10, high * 1.3) };
  const room = Math.max((high - low) * 0.08, 1e-9 + Math.abs(high) * 1e-4);
  return { low: low - room, high: high + room };
}

/** Where a value stands between the ends of a range, 0-1; a little beyond where it lies outside. */
export function shareIn({ low, high }: Range, value: number, isLog: boolean): number {
  const share = isLog
    ? Math.log(Math.max(value, LEAST_LOG) / low) / Math.log(high / low)
    : (value - low) / (high - low);
  return Math.max(-1, Math.min(2, share));
}

interface Scale {
  readonly x: (at: number) => number;
  readonly y: (value: number) => number;
}

/** The line of a curve as an SVG path, and the band between its lows and highs, of what is in sight and one place to either side. */
export function pathsOf(
  { ats, values, lows, highs }: ChartCurve,
  stretch: Stretch,
  { x, y }: Scale,
): { line: string; band: string } {
  const [first, last] = inSight(ats, stretch);
  const places = Array.from({ length: Math.max(0, last - first) }, (_, n) => first + n);
  const along = (of: readonly number[], order: readonly number[]) =>
    order.map((n) => `${x(ats[n]!).toFixed(1)} ${y(of[n]!).toFixed(1)}`).join('L');
  if (places.length === 0) return { line: '', band: '' };
  return {
    line: `M${along(values, places)}`,
    band: lows && highs ? `M${along(highs, places)}L${along(lows, [...places].reverse())}Z` : '',
  };
}

function inSight(ats: readonly number[], { from, to }: Stretch): [first: number, last: number] {
  let [first, last] = [0, ats.length];
  while (first < ats.length - 1 && ats[first + 1]! < from) first += 1;
  while (last > first + 1 && ats[last - 2]! > to) last -= 1;
  return [first, last];
}

/** Nearest and farthest that is looked at, ms. */
const [NEAREST, FARTHEST] = [5000, 90 * 86_400_000];

/** Drawn nearer or away about a place of it. @param share of the stretch that stays where it is */
export function zoomed({ from, to }: Stretch, factor: number, share: number): Stretch {
  const next = Math.max(NEAREST, Math.min(FARTHEST, (to - from) * factor));
  const at = from + share * (to - from);
  return { from: at - share * next, to: at + (1 - share) * next };
}
