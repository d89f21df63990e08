/** Pressure in a bag that was shut off: a leak rises straight, moisture and outgassing flatten. */
export interface Rise {
  /** Pa absolute, when it was shut. */
  readonly start: number;
  /** Of the leak, Pa/s, >= 0: inflow is choked while the bag is under half of ambient, and so does not depend on it. */
  readonly slope: number;
  /** What moisture comes to in the end, Pa, >= 0, and its time constant, s, > 0. */
  readonly moisture: number;
  readonly settling: number;
}

/**
 * p(t) = p0 + (Q/V) t + c (1 - exp(-t/tau)), Pa.
 * @param time s since the bag was shut off
 * Source: O'Hanlon, A User's Guide to Vacuum Technology (from memory). Checked by rise.test.ts.
 */
export const pressureAfter = ({ start, slope, moisture, settling }: Rise, time: number): number =>
  start + slope * time - moisture * Math.expm1(-time / settling);

/** Readings of a drop test, in order of time. */
export interface RiseReadings {
  /** s since the bag was shut off */
  readonly times: ArrayLike<number>;
  /** Pa absolute */
  readonly pressures: ArrayLike<number>;
}

export interface GaugeErrors {
  /** Step of the display, Pa, > 0. */
  readonly resolution: number;
  /** Standard deviation of a reading beside that, Pa, >= 0. */
  readonly noise: number;
}

/** Standard deviation of one reading: rounding to the step r gives r/sqrt(12). */
export const readingSd = ({ resolution, noise }: GaugeErrors): number =>
  Math.hypot(noise, resolution / Math.sqrt(12));

/**
 * Standard deviation of a slope through evenly spaced readings, Pa/s: r sqrt2/(sqrt12 T) of two, else
 * r/sqrt12 / sqrt(n (n^2 - 1) dt^2 / 12).
 * @param duration s, from the first to the last
 * Valid: readings whose errors have nothing to do with each other. Checked by rise.test.ts.
 */
export function slopeSd(gauge: GaugeErrors, count: number, duration: number): number {
  const step = duration / (count - 1);
  return readingSd(gauge) / Math.sqrt((count * (count ** 2 - 1) * step ** 2) / 12);
}
