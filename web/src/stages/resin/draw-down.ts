type Line = readonly { readonly time: number; readonly mass: number }[];
type Scale = (value: number) => number;

/** The time that chart and bars share: px, and s at its right end. */
export interface TimeScale {
  readonly width: number;
  readonly left: number;
  readonly inner: number;
  readonly end: number;
}

/** Where a time lies, px; what is later than the end lies at it. */
export const timeOn = ({ left, inner, end }: TimeScale, time: number): number =>
  left + (Math.min(time, end) / end) * inner;

export const lastOf = (times: ArrayLike<number>): number => (times.length > 0 ? times[times.length - 1]! : 0);

const at = (x: Scale, y: Scale, time: number, mass: number) => `${x(time).toFixed(1)} ${y(mass).toFixed(1)}`;

/** A line of resin over time, as an SVG path. */
export const linePath = (line: Line, x: Scale, y: Scale): string =>
  line.map(({ time, mass }, n) => `${n === 0 ? 'M' : 'L'}${at(x, y, time, mass)}`).join('');

/** Between the fast and the slow side of it; a side that ends earlier stays as it is to the end. */
export function bandPath(fast: Line, slow: Line, end: number, x: Scale, y: Scale): string {
  if (fast.length === 0 || slow.length === 0) return '';
  const toEnd = (line: Line) => [...line, { time: end, mass: line[line.length - 1]!.mass }];
  return `${linePath(toEnd(fast), x, y)}${toEnd(slow)
    .reverse()
    .map(({ time, mass }) => `L${at(x, y, time, mass)}`)
    .join('')}Z`;
}

/** Batches are moved by so much, s: by the quarter of a minute. */
const STEP = 15;

/** A time that a hand has dragged to, s since first mix. */
export const snapped = (time: number, end: number): number =>
  Math.max(0, Math.min(Math.round(end), STEP * Math.round(time / STEP)));
