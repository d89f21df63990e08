import { ModelError, requirePositive } from '../model-error.ts';
import { GAS_CONSTANT } from '../resin/curve-fit.ts';

/** By which a reaction is timed: how fast it goes is stated at one temperature and follows Arrhenius from there. */
export interface Clock {
  /** K, > 0 */
  readonly reference: number;
  /** J/mol, >= 0 */
  readonly activationEnergy: number;
}

/** Temperatures as they were told: each holds from its time on, the first before it too. Times ascend, s; temperatures K. */
export interface Warmth {
  readonly times: readonly number[];
  readonly temperatures: readonly number[];
}

/** Since it began, s; null for no end. */
export interface AgeWindow {
  readonly opens: number;
  readonly closes: number | null;
}

/**
 * By which a reaction goes quicker than at the clock's reference: exp(-E/R (1/T - 1/T_r)).
 * @param temperature K, > 0
 * @throws ModelError  NOT_POSITIVE, ENERGY_NEGATIVE
 * Source: Arrhenius; the integrand of the equivalent age. Checked by age.test.ts.
 */
export function rateFactor(temperature: number, { reference, activationEnergy }: Clock): number {
  requirePositive(temperature, 'a temperature', 'K');
  requirePositive(reference, 'the temperature that times are stated at', 'K');
  if (!(activationEnergy >= 0 && activationEnergy < Infinity))
    throw new ModelError(
      'ENERGY_NEGATIVE',
      `An activation energy is 0 or more (J/mol), got ${activationEnergy}.`,
      { activationEnergy },
    );
  return Math.exp((-activationEnergy / GAS_CONSTANT) * (1 / temperature - 1 / reference));
}

/**
 * Equivalent age, s at the reference: the integral of the rate from one time to another, temperatures holding from when they were told.
 * @param from s, on the clock of the temperatures
 * @param to   s, >= from; of less the age is 0
 * @throws ModelError  WARMTH_EMPTY where no temperature is known, and as rateFactor
 */
export function equivalentAge(warmth: Warmth, from: number, to: number, clock: Clock): number {
  let age = 0;
  for (const { start, end, rate } of stretches(warmth, from, clock)) {
    if (start >= to) break;
    age += rate * (Math.min(end, to) - start);
  }
  return age;
}

/**
 * When an age is reached, s on the clock of the temperatures; the last temperature goes on.
 * @param age s at the reference, >= 0
 * @throws ModelError  as equivalentAge
 */
export function timeOfAge(warmth: Warmth, from: number, age: number, clock: Clock): number {
  let left = Math.max(0, age);
  let at = from;
  for (const { start, end, rate } of stretches(warmth, from, clock)) {
    at = start + left / rate;
    if (at <= end) break;
    left -= rate * (end - start);
  }
  return at;
}

/** A window at one temperature: both of its ends move alike. @throws ModelError as rateFactor */
export function windowAt({ opens, closes }: AgeWindow, temperature: number, clock: Clock): AgeWindow {
  const rate = rateFactor(temperature, clock);
  return { opens: opens / rate, closes: closes === null ? null : closes / rate };
}

function* stretches({ times, temperatures }: Warmth, from: number, clock: Clock) {
  if (temperatures.length === 0)
    throw new ModelError('WARMTH_EMPTY', 'No temperature is known. Type one, or hang up a thermometer.');
  for (let n = 0; n < temperatures.length; n++) {
    const end = times[n + 1] ?? Infinity;
    if (end <= from) continue;
    yield {
      start: n === 0 ? from : Math.max(from, times[n]!),
      end,
      rate: rateFactor(temperatures[n]!, clock),
    };
  }
}
