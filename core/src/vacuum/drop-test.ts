import { requirePositive } from '../model-error.ts';
import { usualPriors, type PossibleRises } from './rise-doubt.ts';
import { pressureAfter, readingSd, type GaugeErrors, type Rise, type RiseReadings } from './rise.ts';

export interface Interval {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** What a slope may be before it is called one, as a multiple of the least that is thought of. */
const AS_GOOD_AS_NONE = 10;

/**
 * The leak's share of a rise, Pa/s: median and 95 % interval; from 0 where nothing speaks against there being no leak.
 * @param possible as possibleRises leaves them
 */
export function slopeOf({ slopes }: Pick<PossibleRises, 'slopes'>, least = usualPriors.slope[0]): Interval {
  const sorted = Float64Array.from(slopes).sort();
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
  const isNone = at(0.025) < AS_GOOD_AS_NONE * least;
  return { value: at(0.5), low: isNone ? 0 : at(0.025), high: at(0.975) };
}

export type RiseCause = 'leak' | 'moisture';

/**
 * Whether more of a rise was let in by a leak or given off by moisture until the end of the test, with the chance of it.
 * @param duration s
 */
export function causeOf(
  { slopes, moistures, settlings }: PossibleRises,
  duration: number,
): { cause: RiseCause; chance: number } {
  let leaks = 0;
  for (let i = 0; i < slopes.length; i++)
    if (slopes[i] * duration > -moistures[i] * Math.expm1(-duration / settlings[i])) leaks += 1;
  const chance = leaks / slopes.length;
  return chance >= 0.5 ? { cause: 'leak', chance } : { cause: 'moisture', chance: 1 - chance };
}

/** How a part may suffer by the air that is let in. */
export interface AirBudget {
  /** Largest void fraction that is taken, 0-1. */
  readonly voidLimit: number;
  /** Of the resin in the part, m3, and the pressure in it where voids would stay, Pa absolute. */
  readonly resinVolume: number;
  readonly resinPressure: number;
  /** For how long air is let in while resin runs, s. */
  readonly fillTime: number;
  /** Share of the air that lands in wet laminate, 0-1: a half, common practice, no source. */
  readonly share: number;
}

/** Void fraction that a leak comes to: phi = f Q t/(p_r V_resin). @param throughput Q = V dp/dt, Pa m3/s */
export const voidsOf = (
  throughput: number,
  { share, fillTime, resinPressure, resinVolume }: AirBudget,
): number => (share * throughput * fillTime) / (resinPressure * resinVolume);

/** The largest leak that keeps to a budget: Q = phi p_r V_resin/(f t), Pa m3/s. */
export const mostThroughput = (budget: AirBudget): number => budget.voidLimit / voidsOf(1, budget);

export interface DropJudgement {
  readonly verdict: 'passes' | 'leaks' | 'cannotTell';
  /** Of passing. */
  readonly chance: number;
  /** s that the bag should stay shut yet; 0 where it can be told. */
  readonly wait: number;
  /** Moisture has told its tale, or all of the rise together is less than matters: before that a leak hides behind it. */
  readonly isSettled: boolean;
}

/**
 * A bag passes when its limit lies over the 95 % interval; common practice, no source. Nobody is sent to look for a leak that may be
 * moisture, and a test is read again and again while it goes on: that takes more.
 */
const SURE = 0.975;
const SURE_OF_LEAK = 0.99;
/** Shorter than this a wet core rises as straight as a leak, s; common practice, no source. */
const LEAST_FOR_LEAK = 300;
/** A slope is told from none at so many of its standard deviations; moisture has told its tale after so many time constants. */
const RESOLVED = 2;
/** Longest that anybody is asked to wait, s. */
const MOST_WAIT = 8 * 3600;

/**
 * Whether a shut bag is tight enough: Q <= Q_max, and the gauge able to tell so.
 * @param freeVolume m3, > 0  @param interval s between readings  @param duration s so far
 * @throws ModelError where volume, duration or interval is not above 0
 */
export function judgeDrop(request: {
  readonly possible: PossibleRises;
  readonly gauge: GaugeErrors;
  readonly freeVolume: number;
  readonly throughputLimit: number;
  readonly interval: number;
  readonly duration: number;
}): DropJudgement {
  const { possible, gauge, freeVolume, throughputLimit, interval, duration } = request;
  requirePositive(freeVolume, 'Free volume', 'm3');
  requirePositive(interval, 'Time between readings', 's');
  requirePositive(duration, 'Length of the test', 's');
  const limit = throughputLimit / freeVolume;
  const chance =
    possible.slopes.reduce((n, slope) => n + (slope <= limit ? 1 : 0), 0) / possible.slopes.length;
  // sd of the slope is s sqrt12/(dt n^1.5) for many readings: the number of them that brings it to half the limit.
  const count = ((RESOLVED * readingSd(gauge) * Math.sqrt(12)) / (interval * limit)) ** (2 / 3);
  const needed = count * interval;
  const settled = RESOLVED * medianOf(possible.settlings);
  const isSettled = duration >= settled || medianOf(meanRises(possible, duration)) <= limit;
  const told = { chance, isSettled, wait: 0 };
  if (chance <= 1 - SURE_OF_LEAK)
    return duration >= LEAST_FOR_LEAK
      ? { ...told, verdict: 'leaks' }
      : { ...told, verdict: 'cannotTell', wait: LEAST_FOR_LEAK - duration };
  if (chance >= SURE && duration >= needed && isSettled) return { ...told, verdict: 'passes' };
  const wait = Math.max(needed, settled) - duration;
  return { ...told, verdict: 'cannotTell', wait: Math.min(wait > 0 ? wait : duration, MOST_WAIT) };
}

/** Of leak and moisture together over a test, Pa/s. */
const meanRises = ({ slopes, moistures, settlings }: PossibleRises, duration: number): Float64Array =>
  slopes.map((slope, i) => slope - (moistures[i] * Math.expm1(-duration / settlings[i])) / duration);

const medianOf = (values: Float64Array): number =>
  Float64Array.from(values).sort()[Math.floor(values.length / 2)];

/** So many about the median leak are tried for the moisture that goes with it best. */
const TRIED = 60;

/**
 * One rise for all that are possible, to be drawn: about the median leak the one that goes through the readings best.
 * @param readings n >= 1, those that the possible rises are of
 */
export function typicalRise({ slopes, moistures, settlings }: PossibleRises, readings: RiseReadings): Rise {
  const order = Array.from(slopes.keys()).sort((a, b) => slopes[a] - slopes[b]);
  const middle = Math.floor(order.length / 2);
  return order
    .slice(Math.max(0, middle - TRIED / 2), middle + TRIED / 2)
    .map((i) =>
      started({ start: 0, slope: slopes[i], moisture: moistures[i], settling: settlings[i] }, readings),
    )
    .reduce((a, b) => (b.squares < a.squares ? b : a)).rise;
}

/** With the start that leaves the least squares, and what those are. */
function started(shape: Rise, { times, pressures }: RiseReadings): { rise: Rise; squares: number } {
  const off = Float64Array.from(times, (time, i) => pressures[i] - pressureAfter(shape, time));
  const start = off.reduce((sum, one) => sum + one, 0) / off.length;
  return { rise: { ...shape, start }, squares: off.reduce((sum, one) => sum + (one - start) ** 2, 0) };
}

/** What of a rise is the leak's and what is moisture's, Pa, at a time: the two are drawn apart. */
export const partsAfter = (rise: Rise, time: number): { leak: number; moisture: number } => ({
  leak: rise.slope * time,
  moisture: pressureAfter({ ...rise, start: 0, slope: 0 }, time),
});
