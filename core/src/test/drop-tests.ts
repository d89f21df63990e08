import { normalOf, type Random } from '../random.ts';
import { usualPriors } from '../vacuum/rise-doubt.ts';
import { pressureAfter, type GaugeErrors, type Rise, type RiseReadings } from '../vacuum/rise.ts';

export interface SimulatedDrop {
  readonly rise: Rise;
  readonly gauge: GaugeErrors;
  readonly duration: number;
  readonly readings: RiseReadings;
}

const between = (random: Random, low: number, high: number) => low + (high - low) * random();
/** Any factor between the two as likely as any other. */
const factor = (random: Random, low: number, high: number) =>
  Math.exp(between(random, Math.log(low), Math.log(high)));

interface Wanted {
  /** The one thing that raises the pressure; both do where none is named. */
  readonly only?: 'leak' | 'moisture';
  /** s */
  readonly duration?: number;
}

/** A drop test as a gauge would have shown it: rounded to its step, blurred by its noise; what is behind it as possibleRises expects it. */
export function simulatedDrop(
  random: Random,
  { only, duration = factor(random, 300, 3600) }: Wanted = {},
): SimulatedDrop {
  const { slope, moisture, settling } = usualPriors;
  const gauge = {
    resolution: [10, 100, 100, 339][Math.floor(4 * random())],
    noise: between(random, 0, 60),
  };
  const rise: Rise = {
    start: between(random, 800, 4000),
    slope: only === 'moisture' ? 0 : factor(random, slope[0], STEEPEST),
    moisture: only === 'leak' ? 0 : factor(random, ...moisture),
    settling: factor(random, ...settling),
  };
  const count = Math.round(duration / between(random, 5, 60)) + 1;
  const times = Array.from({ length: count }, (_, i) => (i * duration) / (count - 1));
  const pressures = times.map((time) => {
    const blurred = pressureAfter(rise, time) + gauge.noise * normalOf(random);
    return Math.round(blurred / gauge.resolution) * gauge.resolution;
  });
  return { rise, gauge, duration, readings: { times, pressures } };
}

/** A steeper one is heard before it is read, Pa/s. */
const STEEPEST = 5;
/** Steps of the gauge, or of three times its noise, by which a rise shows. */
const SHOWS = 5;

/** One of a single cause whose rise shows on the gauge. */
export function showingDrop(random: Random, only: 'leak' | 'moisture', duration: number): SimulatedDrop {
  for (;;) {
    const drop = simulatedDrop(random, { only, duration });
    const step = Math.max(drop.gauge.resolution, 3 * drop.gauge.noise);
    if (pressureAfter(drop.rise, duration) - drop.rise.start >= SHOWS * step) return drop;
  }
}
