import { ModelError, requirePositive } from '../model-error.ts';
import { cureLawOf } from './cure-law.ts';
import { clockOfSteps, type ResinClock } from './resin-clock.ts';
import type { ResinSystem } from './resin-system.ts';
import { heatOf, potSteps, type PotStep } from './self-heating.ts';

export interface PotRequest {
  readonly resin: ResinSystem;
  /** Mixed resin in one pot, kg. */
  readonly mass: number;
  /** Of the resin when mixed, and around the pot then, K. */
  readonly start: number;
  readonly ambient: number;
  /** K/s by which shop, pot and part warm or cool meanwhile; 0 when left out. */
  readonly drift?: number;
}

/**
 * Resin left in its pot, step by step, as old as it is in there and no younger than a thin film at the temperature it was mixed
 * at: that is how warm the part is taken to be.
 */
function createPot({ resin, mass, start, ambient, drift = 0 }: PotRequest) {
  requirePositive(mass, 'The batch', 'kg');
  const law = cureLawOf(resin);
  law.rate(0, start);
  const inPart = (time: number) => start + drift * time;
  let isKnown = true;
  function* steps(): Generator<PotStep> {
    const run = potSteps({
      mass,
      density: resin.density,
      start,
      ambient: (time) => ambient + drift * time,
      heat: heatOf(resin),
      rate: (share, temperature, time) =>
        law.rate(share * law.gelState, Math.max(temperature, inPart(time))) / law.gelState,
    });
    try {
      yield* run;
    } catch (error) {
      if (!(error instanceof ModelError)) throw error;
      isKnown = false;
    }
  }
  return { law, inPart, steps, endsUnknown: () => !isKnown };
}

/**
 * Clock of a batch that is drawn from its pot: as old as the resin in there, which warms itself, and flowing at the part's
 * temperature. It ends at gel, or where the pot leaves the data.
 * @throws ModelError NOT_POSITIVE, NO_CURE; those of the resin's curves at the starting temperature
 * Valid: as potSteps; the pot stays full, so what is drawn late counts as somewhat too old. Checked by resin.test.ts.
 */
export function createPotClock(request: PotRequest): ResinClock {
  const { law, inPart, steps, endsUnknown } = createPot(request);
  return clockOfSteps(steps(), law, inPart, endsUnknown);
}

export interface PotForecast {
  /** When the pot gels, s; Infinity where that is not known, or it stays liquid for a day. */
  readonly gelTime: number;
  /** When it is warmer than the resin's data cover: what comes after is not known; Infinity where it never is. */
  readonly knownUntil: number;
  readonly curve: readonly { readonly time: number; readonly temperature: number; readonly age: number }[];
}

const LONGEST = 24 * 3600;

/**
 * Temperature and cure of resin left in its pot.
 * @throws ModelError NOT_POSITIVE; those of the resin's curves at the starting temperature
 * Valid: as potSteps. Checked by resin.test.ts.
 */
export function forecastPot(request: PotRequest): PotForecast {
  const { steps, endsUnknown } = createPot(request);
  const curve: { time: number; temperature: number; age: number }[] = [];
  for (const { time, temperature, share } of steps()) {
    curve.push({ time, temperature, age: share });
    if (time >= LONGEST) return { gelTime: Infinity, knownUntil: Infinity, curve };
  }
  const end = curve[curve.length - 1].time;
  return endsUnknown()
    ? { gelTime: Infinity, knownUntil: end, curve }
    : { gelTime: end, knownUntil: Infinity, curve };
}

const LARGEST = 500;
/** Rise that says the pot no longer follows its surroundings. Common practice, no source. */
export const SAFE_RISE = 20;

/**
 * How long a batch may stay in its pot, s since it was mixed: until it is older than a share of its way to gel, warms by more than
 * SAFE_RISE, or leaves the resin's data; Infinity where none of it comes within a day.
 * Errors and validity as forecastPot. Checked by resin.test.ts.
 */
export function longestStay({ ageLimit, ...request }: PotRequest & { readonly ageLimit: number }): number {
  const { steps } = createPot(request);
  const warmest = Math.max(request.start, request.ambient) + SAFE_RISE;
  let last: PotStep = { time: 0, temperature: request.start, share: 0 };
  for (const step of steps()) {
    const tooOld = pastLimit(last.share, step.share, ageLimit);
    const tooWarm = pastLimit(last.temperature, step.temperature, warmest);
    const beyond = Math.max(tooOld, tooWarm);
    if (beyond > 0) return step.time - beyond * (step.time - last.time);
    if (step.time >= LONGEST) return Infinity;
    last = step;
  }
  return last.time;
}

/** Share of a step that lies past a limit, 0 before it. */
const pastLimit = (from: number, to: number, limit: number): number =>
  to <= limit ? 0 : Math.min(1, (to - limit) / (to - from));

/**
 * Largest batch, kg, that up to a time neither gels in its pot nor warms by more than SAFE_RISE; null when even 50 g does,
 * Infinity when half a tonne does not.
 */
export function largestBatch(request: Omit<PotRequest, 'mass'> & { readonly until: number }): number | null {
  const isSafe = (mass: number) => longestStay({ ...request, mass, ageLimit: 1 }) > request.until;
  if (!isSafe(0.05)) return null;
  if (isSafe(LARGEST)) return Infinity;
  let [low, high] = [0.05, LARGEST];
  for (let i = 0; i < 16; i++) {
    const middle = Math.sqrt(low * high);
    if (isSafe(middle)) low = middle;
    else high = middle;
  }
  return low;
}
