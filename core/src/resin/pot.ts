import { requirePositive } from '../model-error.ts';
import { cureLawOf } from './cure-law.ts';
import type { ResinSystem } from './resin-system.ts';

export interface PotRequest {
  readonly resin: ResinSystem;
  /** Mixed resin in one pot, kg. */
  readonly mass: number;
  /** Of the resin when mixed, and around the pot, K. */
  readonly start: number;
  readonly ambient: number;
}

export interface PotForecast {
  /** When the pot gels, s; Infinity where it left the known temperatures first or stayed liquid for a day. */
  readonly gelTime: number;
  /** When its temperature leaves what the resin's data cover: from there on it runs away; Infinity when it does not. */
  readonly runawayTime: number;
  readonly curve: readonly { readonly time: number; readonly temperature: number; readonly age: number }[];
}

/** J/(kg K); from memory, typical of unfilled thermosets. */
const SPECIFIC_HEAT = 1900;
/** J/kg from mix to gel where no data sheet says; from memory, about a quarter to a third of the whole heat of cure of a laminating epoxy. */
const ASSUMED_HEAT = 120_000;
/** W/(m2 K); from memory, plastic pail in still air. */
const HEAT_TRANSFER = 8;
const LONGEST = 24 * 3600;

/**
 * Temperature and cure of resin left in its pot: m cp dT/dt = m H da/dt - h A (T - T_ambient), the pot as tall as wide.
 * @throws ModelError NOT_POSITIVE; those of the resin's curves at the starting temperature
 * Valid: one temperature in the pot, so it flatters large batches. Source: lumped heat balance. Checked by resin.test.ts.
 */
export function forecastPot({ resin, mass, start, ambient }: PotRequest): PotForecast {
  requirePositive(mass, 'The batch', 'kg');
  const law = cureLawOf(resin);
  const heat = resin.heatToGel ?? ASSUMED_HEAT;
  const diameter = Math.cbrt((4 * mass) / (Math.PI * resin.density));
  const cooling = (HEAT_TRANSFER * 1.5 * Math.PI * diameter ** 2) / (mass * SPECIFIC_HEAT);
  let [time, temperature, state] = [0, start, 0];
  const curve = [{ time, temperature, age: 0 }];
  law.rate(0, start);
  while (time < LONGEST) {
    try {
      const rate = law.rate(state, temperature) / law.gelState;
      const step = Math.min(60, 0.004 / rate, 0.2 / cooling);
      const slope = (age: number, T: number) => (heat / SPECIFIC_HEAT) * age - cooling * (T - ambient);
      const middleT = temperature + 0.5 * step * slope(rate, temperature);
      const middle = law.rate(state + 0.5 * step * rate * law.gelState, middleT) / law.gelState;
      temperature += step * slope(middle, middleT);
      state += step * middle * law.gelState;
      time += step;
    } catch {
      return { gelTime: Infinity, runawayTime: time, curve };
    }
    curve.push({ time, temperature, age: state / law.gelState });
    if (state >= law.gelState) return { gelTime: time, runawayTime: Infinity, curve };
  }
  return { gelTime: Infinity, runawayTime: Infinity, curve };
}

const LARGEST = 500;
/** Rise that says the pot no longer follows its surroundings. Common practice, no source. */
export const SAFE_RISE = 20;

/**
 * Largest batch, kg, that up to a time neither gels in its pot nor warms by more than SAFE_RISE; null when even 50 g does,
 * Infinity when half a tonne does not.
 */
export function largestBatch(request: Omit<PotRequest, 'mass'> & { readonly until: number }): number | null {
  const isSafe = (mass: number) => {
    const { gelTime, runawayTime, curve } = forecastPot({ ...request, mass });
    if (Math.min(gelTime, runawayTime) <= request.until) return false;
    const warmest = curve.reduce(
      (most, point) => (point.time <= request.until ? Math.max(most, point.temperature) : most),
      request.start,
    );
    return warmest - Math.max(request.start, request.ambient) <= SAFE_RISE;
  };
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
