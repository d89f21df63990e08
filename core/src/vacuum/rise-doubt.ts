import { createRandom, type Random } from '../random.ts';
import { fitRise } from './rise-fit.ts';
import { readingSd, type GaugeErrors, type RiseReadings } from './rise.ts';

/** Leaks, moistures and time constants that could be behind the readings, one each in every place. */
export interface PossibleRises {
  /** Pa/s */
  readonly slopes: Float64Array;
  /** Pa */
  readonly moistures: Float64Array;
  /** s */
  readonly settlings: Float64Array;
}

/** Before a test anything between these is as likely as anything else, factor by factor. The least slope is no leak at all. */
export interface RisePriors {
  /** Pa/s */
  readonly slope: readonly [number, number];
  /** Pa: water gives no more than its vapour pressure. */
  readonly moisture: readonly [number, number];
  /** s */
  readonly settling: readonly [number, number];
}
export const usualPriors: RisePriors = {
  slope: [1e-3, 100],
  moisture: [3, 3000],
  settling: [60, 2400],
};

const CHAINS = 48;
const ROUNDS = 500;
const BURN_IN = 200;
/** Chance that a reading is a slip, and how many steps off such a one may be: far off it still tells which way is better. */
const SLIP = 1e-6;
const SLIP_STEPS = 20;
/** Explanations that are so much worse are not started from. */
const FAR_OFF = 40;
/** Readings that are looked at one by one; of more, each stands for as many. */
const MOST_READINGS = 120;
/** A reading is never better than this share of its step. */
const LEAST_NOISE = 0.1;
/** With so much noise for its step rounding is no more than noise, and readings can be averaged. */
const DITHERED = 0.5;

/**
 * What the readings of a drop test leave possible, by differential evolution Markov chains over start, slope, moisture and time
 * constant; the likelihood knows that a gauge shows steps: a reading v means between v - r/2 and v + r/2, blurred by the noise.
 * @param readings n >= 2, times increasing
 * Source: ter Braak 2006, A Markov Chain Monte Carlo version of the genetic algorithm Differential Evolution (from memory).
 * Checked by drop-test.test.ts and `npm run bench`: the 95 % interval holds the truth in 95 of 100.
 */
export function possibleRises(
  readings: RiseReadings,
  gauge: GaugeErrors,
  { priors = usualPriors, seed = 1 }: { priors?: RisePriors; seed?: number } = {},
): PossibleRises {
  const logLikelihood = likelihoodOf(condensed(readings, gauge));
  const random = createRandom(seed);
  const bounds = [priors.slope, priors.moisture, priors.settling].map((range) => range.map(Math.log));
  const chains = startsOf(readings, gauge, bounds, random);
  const heights = chains.map(logLikelihood);
  const kept = (ROUNDS - BURN_IN) * CHAINS;
  const out = {
    slopes: new Float64Array(kept),
    moistures: new Float64Array(kept),
    settlings: new Float64Array(kept),
  };
  for (let round = 0, n = 0; round < ROUNDS; round++)
    for (let c = 0; c < CHAINS; c++) {
      const next = jump(chains, c, round, random);
      if (isWithin(next, bounds)) {
        const height = logLikelihood(next);
        if (Math.log(random()) < height - heights[c]) {
          chains[c] = next;
          heights[c] = height;
        }
      }
      if (round < BURN_IN) continue;
      const [, slope, moisture, settling] = chains[c];
      out.slopes[n] = Math.exp(slope);
      out.moistures[n] = Math.exp(moisture);
      out.settlings[n++] = Math.exp(settling);
    }
  return out;
}

/** Start, Pa, and the logarithms of slope, moisture and time constant. */
type State = readonly [number, number, number, number];

const isWithin = (state: State, bounds: readonly (readonly number[])[]) =>
  bounds.every(([low, high], i) => state[i + 1] >= low && state[i + 1] <= high);

/** Along the difference of two other chains; now and then the whole of it, which leads from one explanation to another. */
function jump(chains: readonly State[], own: number, round: number, random: Random): State {
  const other = () => chains[Math.floor(random() * chains.length)];
  const [a, b] = [other(), other()];
  const along = round % 5 === 0 ? 1 : (2.38 / Math.sqrt(2 * 4)) * (0.5 + random());
  return chains[own].map(
    (value, i) => value + along * (a[i] - b[i]) + 1e-4 * (random() - 0.5),
  ) as unknown as State;
}

/** Each from what fits best with a time constant of its own, shaken. */
function startsOf(
  readings: RiseReadings,
  gauge: GaugeErrors,
  bounds: readonly (readonly number[])[],
  random: Random,
): State[] {
  const all = fitRise(readings, gauge);
  const fits = all.filter(({ score }) => score <= all[0].score + FAR_OFF);
  const clamp = (value: number, [low, high]: readonly number[]) =>
    Math.min(high - 1e-3, Math.max(low + 1e-3, value));
  return Array.from({ length: CHAINS }, (_, n) => {
    const { rise } = fits[n % fits.length];
    const shaken = [rise.slope, rise.moisture, rise.settling].map((value, i) => {
      const anywhere = bounds[i][0] + random() * (bounds[i][1] - bounds[i][0]);
      const isFound = value > Math.exp(bounds[i][0]);
      return clamp(
        isFound ? Math.log(value) + 0.3 * (random() - 0.5) : Math.min(anywhere, bounds[i][0] + 2),
        bounds[i],
      );
    });
    return [rise.start + readingSd(gauge) * (random() - 0.5), ...shaken] as unknown as State;
  });
}

interface Condensed {
  readonly times: Float64Array;
  readonly pressures: Float64Array;
  readonly noise: number;
  /** Half a step; 0 where rounding counts as noise. */
  readonly half: number;
}

/** Few enough to be looked at thousands of times. */
function condensed({ times, pressures }: RiseReadings, gauge: GaugeErrors): Condensed {
  const count = Math.min(times.length, MOST_READINGS);
  const own = { times: new Float64Array(count), pressures: new Float64Array(count) };
  const isDithered = gauge.noise > DITHERED * gauge.resolution;
  for (let i = 0; i < count; i++) {
    const [from, to] = [i, i + 1].map((n) => Math.floor((n * times.length) / count));
    const until = isDithered ? to : from + 1;
    for (let j = from; j < until; j++) {
      own.times[i] += times[j] / (until - from);
      own.pressures[i] += pressures[j] / (until - from);
    }
  }
  return isDithered
    ? { ...own, noise: readingSd(gauge) / Math.sqrt(times.length / count), half: 0 }
    : { ...own, noise: Math.max(gauge.noise, LEAST_NOISE * gauge.resolution), half: gauge.resolution / 2 };
}

// Looked up once: these run millions of times.
const { abs, exp, expm1, log } = Math;

function likelihoodOf({ times, pressures, noise, half }: Condensed) {
  const slip = SLIP_STEPS * (noise + half);
  return ([start, logSlope, logMoisture, logSettling]: State): number => {
    const [slope, moisture, rate] = [exp(logSlope), exp(logMoisture), exp(-logSettling)];
    let sum = 0;
    for (let i = 0; i < times.length; i++) {
      const off = pressures[i] - start - slope * times[i] + moisture * expm1(-times[i] * rate);
      const chance =
        half > 0
          ? normalShare((off + half) / noise) - normalShare((off - half) / noise)
          : exp(-0.5 * (off / noise) ** 2);
      sum += log(chance + SLIP * exp(-abs(off) / slip));
    }
    return sum;
  };
}

/** Share of a standard normal below z. Source: Abramowitz & Stegun 7.1.26, |error| < 1.5e-7. */
function normalShare(z: number): number {
  const x = abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const tail =
    0.5 *
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) *
    exp(-x * x);
  return z > 0 ? 1 - tail : tail;
}
