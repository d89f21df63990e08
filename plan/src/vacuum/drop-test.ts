import {
  causeOf,
  judgeDrop,
  mostThroughput,
  slopeOf,
  typicalRise,
  voidsOf,
  type AirBudget,
  type DropJudgement,
  type Interval,
  type RiseCause,
} from '@wick/core/vacuum/drop-test';
import { possibleRises } from '@wick/core/vacuum/rise-doubt';
import { fitRise, type RiseKind } from '@wick/core/vacuum/rise-fit';
import type { GaugeErrors, Rise, RiseReadings } from '@wick/core/vacuum/rise';

/** What a drop test is read against. */
export interface DropRequest {
  readonly readings: RiseReadings;
  readonly gauge: GaugeErrors;
  /** m3 */
  readonly freeVolume: number;
  readonly budget: AirBudget;
}

export interface DropReading {
  /** Straight and saturating part of the curve, as drawn: with the leak that is most to be thought of. */
  readonly rise: Rise;
  readonly kind: RiseKind;
  /** Pa m3/s */
  readonly throughput: Interval;
  readonly throughputLimit: number;
  readonly judgement: DropJudgement;
  readonly cause: { readonly cause: RiseCause; readonly chance: number };
  /** Let in during the fill, m3 at ambient pressure of 1 bar; and the void fraction it comes to. */
  readonly air: Interval;
  readonly voids: Interval;
  /** s */
  readonly duration: number;
  readonly count: number;
}

/** Readings and time that there have to be before anything is said, s. */
const LEAST_READINGS = 3;
const LEAST_TIME = 30;
const FREE_AIR = 101_325;

/** @returns null while there is too little to read. Errors as judgeDrop. */
export function readDrop({ readings, gauge, freeVolume, budget }: DropRequest): DropReading | null {
  const { times } = readings;
  const count = times.length;
  const duration = count > 0 ? times[count - 1]! - times[0]! : 0;
  if (count < LEAST_READINGS || duration < LEAST_TIME) return null;
  const possible = possibleRises(readings, gauge);
  const [best] = fitRise(readings, gauge);
  const slope = slopeOf(possible);
  const scaled = (by: number): Interval => ({
    value: slope.value * by,
    low: slope.low * by,
    high: slope.high * by,
  });
  const throughputLimit = mostThroughput(budget);
  const voids = voidsOf(freeVolume, budget);
  return {
    rise: typicalRise(possible, readings),
    kind: best!.kind,
    throughput: scaled(freeVolume),
    throughputLimit,
    judgement: judgeDrop({
      ...{ possible, gauge, freeVolume, throughputLimit, duration },
      interval: duration / (count - 1),
    }),
    cause: causeOf(possible, duration),
    air: scaled((freeVolume * budget.fillTime) / FREE_AIR),
    voids: scaled(voids),
    ...{ duration, count },
  };
}

/** Two tests after pulling in between: what the second keeps of the first one's rise. */
export interface TwoTests {
  /** Of the mean rise, second over first, over the time both have. */
  readonly kept: Interval;
  readonly says: 'leak' | 'moisture' | 'open';
}

/** Keeps more than this: a leak; less than that: moisture. Common practice, no source. */
const LEAK_KEEPS = 0.8;
const MOISTURE_KEEPS = 0.65;

/** A leak stays as it was, what moisture gives off becomes less. @returns null where the first one did not rise */
export function compareTests(first: RiseReadings, second: RiseReadings, gauge: GaugeErrors): TwoTests | null {
  const duration = Math.min(lastOf(first.times), lastOf(second.times));
  const [a, b] = [riseOver(first, duration), riseOver(second, duration)];
  const sd = Math.hypot(gauge.noise, gauge.resolution / Math.sqrt(12)) * Math.SQRT2;
  if (!(duration > 0) || !(a > 2 * sd)) return null;
  const value = b / a;
  // First-order error of a quotient.
  const within = 1.96 * value * Math.hypot(sd / a, b === 0 ? 0 : sd / b);
  const kept = { value, low: value - within, high: value + within };
  if (kept.low > MOISTURE_KEEPS && value > LEAK_KEEPS) return { kept, says: 'leak' };
  return { kept, says: kept.high < LEAK_KEEPS && value < MOISTURE_KEEPS ? 'moisture' : 'open' };
}

const lastOf = (values: ArrayLike<number>) => (values.length > 0 ? values[values.length - 1]! : 0);

/** Means of a tenth of the readings at either end, so that one odd reading tells little. */
function riseOver({ times, pressures }: RiseReadings, duration: number): number {
  let count = 0;
  while (count < times.length && times[count]! <= duration + 1e-9) count += 1;
  const few = Math.max(1, Math.floor(count / 10));
  const mean = (from: number, to: number) => {
    let sum = 0;
    for (let i = from; i < to; i++) sum += pressures[i]!;
    return sum / (to - from);
  };
  return count < 2 ? 0 : mean(count - few, count) - mean(0, few);
}
