import { normalOf, type Random } from '../random.ts';
import type { GaugeErrors } from './rise.ts';

/** What a gauge shows of a true value: blurred by its noise, rounded to its step. @returns in the unit of the value */
export function shownBy({ resolution, noise }: GaugeErrors, value: number, random: Random): number {
  const blurred = value + noise * normalOf(random);
  return Math.round(blurred / resolution) * resolution;
}

/** A place that hisses, and how far from the listener it is. */
export interface Hiss {
  /** Pa m3/s */
  readonly throughput: number;
  /** m */
  readonly away: number;
}

/** Of a quiet shop, and what a pump beside it adds, dB: invented for the simulated listener. */
const QUIET = 32;
const PUMP_NOISE = 16;
/** What a leak of this size, Pa m3/s, gives at a hand's breadth, m: invented likewise. */
const [HISS, HISS_LEVEL, NEAR] = [1e-3, 52, 0.1];

/**
 * Level that a listener shows, dB: powers add, and each leak's falls with the square of the distance.
 * Source: levels and distance, any acoustics text (from memory); the strength of a leak is invented.
 */
export function heardLevel(leaks: readonly Hiss[], pumpRuns: boolean): number {
  const power = (level: number) => 10 ** (level / 10);
  const background = power(QUIET) + (pumpRuns ? power(QUIET + PUMP_NOISE) : 0);
  const sum = leaks.reduce(
    (total, { throughput, away }) =>
      total + power(HISS_LEVEL) * (throughput / HISS) ** 2 * (NEAR / Math.max(away, NEAR)) ** 2,
    background,
  );
  return 10 * Math.log10(sum);
}
