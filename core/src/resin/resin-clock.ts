import type { CureLaw } from '../flow/moving-resin.ts';
import { ModelError } from '../model-error.ts';
import { cureLawOf } from './cure-law.ts';
import { ASSUMED_GEL_RATIO, chemistryOf, freshViscosity, type ResinSystem } from './resin-system.ts';
import { gelTime } from './gel-time.ts';

/** One batch from its first mix on; times in s since then. */
export interface ResinClock {
  /** When nothing flows any more: gel, or where the data end if that comes first. */
  readonly gelTime: number;
  /** The pot is then warmer than the resin's data cover, so that its gel is not known. */
  readonly endsUnknown: boolean;
  /** Pa s; past gel it is carried on, for drawing only. */
  viscosityAt(time: number): number;
  /** Share of the way to gel: age, or conversion over conversion at gel. */
  ageAt(time: number): number;
  /** Fluidity time, the integral of dt / viscosity, 1/Pa; nothing flows after gel. */
  fluidity(span: { from: number; to: number }): number;
  /** When flow that began at `from` has used up a fluidity time; Infinity if gel comes first. */
  timeAtFluidity(use: { from: number; fluidity: number }): number;
}

/** Temperature of the resin: constant, K, or changing with the time since first mix, s. */
export type Warmth = number | ((time: number) => number);

/**
 * Clock of a thin film. At constant temperature, of an amine without a measured curve or kinetics, viscosity grows with age a = t / t_gel
 * as mu = mu0 exp(g a), and the integrals are closed: fluidity = t_gel / (g mu0) (exp(-g a0) - exp(-g a1)). Otherwise they
 * are taken numerically.
 * @throws ModelError as freshViscosity and cureLawOf
 * Valid: all the resin of one age and temperature. Checked by resin.test.ts against numerical integration.
 */
export function createResinClock(resin: ResinSystem, warmth: Warmth): ResinClock {
  if (typeof warmth === 'number' && isClosed(resin)) return closedClock(resin, warmth);
  const law = cureLawOf(resin);
  const temperature = typeof warmth === 'number' ? () => warmth : warmth;
  return clockOfSteps(filmSteps(law, temperature), law, temperature);
}

/** Its fluidity is a closed formula at constant temperature. */
export const isClosed = (resin: ResinSystem): boolean =>
  !resin.kinetics && !resin.viscosityCurve && chemistryOf(resin) === 'amine';

/** The clock of the same resin with its viscosity and its gel time multiplied: times stretch, fluidity with them. */
export function scaledClock(clock: ResinClock, by: { viscosity: number; gelTime: number }): ResinClock {
  const t = by.gelTime;
  return {
    gelTime: clock.gelTime * t,
    endsUnknown: clock.endsUnknown,
    viscosityAt: (time) => by.viscosity * clock.viscosityAt(time / t),
    ageAt: (time) => clock.ageAt(time / t),
    fluidity: ({ from, to }) => (t / by.viscosity) * clock.fluidity({ from: from / t, to: to / t }),
    timeAtFluidity: ({ from, fluidity }) =>
      t * clock.timeAtFluidity({ from: from / t, fluidity: (fluidity * by.viscosity) / t }),
  };
}

function closedClock(resin: ResinSystem, temperature: number): ResinClock {
  const fresh = freshViscosity(resin, temperature);
  const gel = gelTime(resin, temperature);
  const growth = Math.log(Math.max(resin.gelViscosityRatio ?? ASSUMED_GEL_RATIO, 1 + 1e-6));
  const scale = gel / (growth * fresh);
  const left = (time: number) => Math.exp((-growth * Math.min(time, gel)) / gel);
  return {
    gelTime: gel,
    endsUnknown: false,
    viscosityAt: (time) => fresh * Math.exp((growth * time) / gel),
    ageAt: (time) => time / gel,
    fluidity: ({ from, to }) => scale * (left(from) - left(to)),
    timeAtFluidity: ({ from, fluidity }) => {
      const remaining = left(from) - fluidity / scale;
      const time = from >= gel || !(remaining > 0) ? Infinity : (-gel / growth) * Math.log(remaining);
      return time <= gel ? time : Infinity;
    },
  };
}

/** Longest wait for a gel. */
const LONGEST_LIFE = 60 * 24 * 3600;

/** A resin's way to gel: its state as a share of the gel's, step by step from the mix on. */
export type CureSteps = Iterable<{ readonly time: number; readonly share: number }>;

const CURE_STEP = 0.004;
const LONGEST_STEP = 120;

/** Of a thin film, which has its surroundings' temperature (midpoint rule). */
function* filmSteps({ gelState, rate }: CureLaw, temperature: (time: number) => number): CureSteps {
  yield { time: 0, share: 0 };
  for (let [time, state] = [0, 0]; state < gelState;) {
    const now = rate(state, temperature(time));
    let step = Math.min(LONGEST_STEP, (CURE_STEP * gelState) / now);
    let next = state + step * rate(state + 0.5 * step * now, temperature(time + 0.5 * step));
    if (next > gelState) {
      step *= (gelState - state) / (next - state);
      next = gelState;
    }
    time += step;
    state = next;
    yield { time, share: state / gelState };
  }
}

/**
 * The clock of resin that cures step by step and flows at a temperature; between steps time, state and fluidity run straight,
 * viscosity straight in its log.
 * @throws ModelError NO_CURE
 */
export function clockOfSteps(
  steps: CureSteps,
  law: CureLaw,
  temperature: (time: number) => number,
  endsUnknown: () => boolean = () => false,
): ResinClock {
  const { gelState } = law;
  const viscosityAt = (share: number, time: number) =>
    law.viscosity(Math.min(share, 1 - 1e-9) * gelState, temperature(time));
  const times: number[] = [];
  const shares: number[] = [];
  const sums: number[] = [];
  const viscosities: number[] = [];
  for (const { time, share } of steps) {
    const last = times.length - 1;
    const viscosity = viscosityAt(share, time);
    if (last < 0) sums.push(0);
    else {
      const step = time - times[last];
      const between = 1 / viscosityAt(0.5 * (shares[last] + share), time - 0.5 * step);
      sums.push(sums[last] + (step * (1 / viscosities[last] + 4 * between + 1 / viscosity)) / 6);
    }
    times.push(time);
    shares.push(share);
    viscosities.push(viscosity);
    if (!(time < LONGEST_LIFE))
      throw new ModelError(
        'NO_CURE',
        'At this temperature the resin does not gel within two months. Check the temperature and the resin.',
      );
  }
  const gel = times[times.length - 1];
  const at = (values: readonly number[], time: number) => readTable(times, values, time);
  const logs = viscosities.map(Math.log);
  return {
    gelTime: gel,
    endsUnknown: endsUnknown(),
    viscosityAt: (time) => Math.exp(at(logs, time)),
    ageAt: (time) => at(shares, time),
    fluidity: ({ from, to }) => at(sums, Math.min(to, gel)) - at(sums, Math.min(from, gel)),
    timeAtFluidity: ({ from, fluidity }) => {
      const target = at(sums, Math.min(from, gel)) + fluidity;
      return from < gel && target <= sums[sums.length - 1] ? readTable(sums, times, target) : Infinity;
    },
  };
}

/** Straight between entries of an ascending table, carried on past its end. */
function readTable(keys: readonly number[], values: readonly number[], key: number): number {
  let [low, high] = [0, keys.length - 2];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle] <= key) low = middle;
    else high = middle - 1;
  }
  const share = (key - keys[low]) / (keys[low + 1] - keys[low]);
  return values[low] + share * (values[low + 1] - values[low]);
}
