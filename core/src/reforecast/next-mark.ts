import { alike, LOCAL_SCATTER } from './marks.ts';
import type { Weighing } from './shapes.ts';

/** A place that could be watched. */
export interface Candidate<T> {
  readonly place: T;
  /** Fluidity time of the front there in each shape, in their order; Infinity or NaN where it never comes. */
  readonly times: readonly number[];
}

export interface Telling<T> {
  readonly place: T;
  /** Fluidity time at which the front is expected there. */
  readonly expected: number;
  /** Share of what is open about the last corner (variance of ln of its time) that a mark there would settle. */
  readonly settles: number;
}

/** Deviation of ln of time by which a mark is read, place and clock together. */
const READING = 0.04;
/** ln of time by which a place that never fills is later than one that does. */
const NEVER = 1;

/**
 * Of the places that the front has still to reach the one at which a mark would tell most of the last corner, by linear regression of
 * the one on the other over the shapes and their factors.
 * @param last fluidity time of the last corner in each shape
 * @returns null where nothing is ahead or every shape agrees
 * Source: variance left by a linear estimate, 1 - correlation^2. Checked by next-mark.test.ts.
 */
export function tellingMost<T>(
  { shapes }: Pick<Weighing, 'shapes'>,
  last: readonly number[],
  candidates: readonly Candidate<T>[],
): Telling<T> | null {
  let best: Telling<T> | null = null;
  const ends = logsOf(last);
  for (const { place, times } of candidates) {
    const here = logsOf(times);
    const means = [0, 0];
    shapes.forEach(({ weight, factor }, k) => {
      means[0] += weight * (here[k]! - factor.mean);
      means[1] += weight * (ends[k]! - factor.mean);
    });
    let [own, end, both] = [0, 0, 0];
    shapes.forEach(({ weight, factor }, k) => {
      const a = here[k]! - factor.mean - means[0]!;
      const b = ends[k]! - factor.mean - means[1]!;
      const common = factor.deviation ** 2;
      const near = LOCAL_SCATTER ** 2 * alike(Math.exp(here[k]!), Math.exp(ends[k]!));
      own += weight * (a * a + common + LOCAL_SCATTER ** 2 + READING ** 2);
      end += weight * (b * b + common + LOCAL_SCATTER ** 2);
      both += weight * (a * b + common + near);
    });
    const settles = both ** 2 / (own * end);
    if (settles > (best?.settles ?? 0)) best = { place, expected: Math.exp(means[0]!), settles };
  }
  return best;
}

/** ln of times; what never comes counts as later than the latest that does. */
function logsOf(times: readonly number[]): number[] {
  const known = times.filter((time) => time > 0 && time < Infinity);
  const never = Math.log(Math.max(1e-300, ...known)) + NEVER;
  return times.map((time) => (time > 0 && time < Infinity ? Math.log(time) : never));
}
