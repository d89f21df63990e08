import { ModelError, requireFraction, requirePositive } from '../model-error.ts';
import { GAS_CONSTANT } from './curve-fit.ts';

/**
 * Kamal-Sourour cure, d alpha/dt = (k1 + k2 alpha^m)(1 - alpha)^n with k = A exp(-E/RT), and Castro-Macosko viscosity,
 * mu = A exp(E/RT) (alpha_g / (alpha_g - alpha))^(B + C alpha).
 */
export interface Kinetics {
  /** 1/s and J/mol */
  readonly A1: number;
  readonly E1: number;
  readonly A2: number;
  readonly E2: number;
  readonly m: number;
  readonly n: number;
  /** Conversion at gel, 0-1. */
  readonly gelConversion: number;
  /** Pa s and J/mol */
  readonly viscosityA: number;
  readonly viscosityE: number;
  readonly B: number;
  readonly C: number;
}

/** Conversion rate, 1/s. Source: Kamal & Sourour 1973. */
export function cureRate(
  { A1, E1, A2, E2, m, n }: Kinetics,
  conversion: number,
  temperature: number,
): number {
  const k = (A: number, E: number) => A * Math.exp(-E / (GAS_CONSTANT * temperature));
  const alpha = Math.min(1, Math.max(0, conversion));
  return (k(A1, E1) + k(A2, E2) * alpha ** m) * (1 - alpha) ** n;
}

/** Pa s; Infinity at and past gel. Source: Castro & Macosko 1982. */
export function viscosityOfKinetics(kinetics: Kinetics, conversion: number, temperature: number): number {
  const { gelConversion, viscosityA, viscosityE, B, C } = kinetics;
  if (conversion >= gelConversion) return Infinity;
  const base = viscosityA * Math.exp(viscosityE / (GAS_CONSTANT * temperature));
  return base * (gelConversion / (gelConversion - conversion)) ** (B + C * conversion);
}

/**
 * Time to gel at constant temperature, s: the integral of d alpha / rate from 0 to the gel conversion (Simpson).
 * @throws ModelError NO_CURE when the constants give no cure
 */
export function gelTimeOfKinetics(kinetics: Kinetics, temperature: number): number {
  requireKinetics(kinetics);
  const { gelConversion } = kinetics;
  const PARTS = 2000;
  // Substituting alpha = gel x^2 crowds points near the start, where an autocatalytic cure is slowest.
  const value = (x: number) =>
    (2 * gelConversion * x) / cureRate(kinetics, gelConversion * x * x, temperature);
  let sum = value(1);
  for (let i = 0; i < PARTS; i++) sum += (i === 0 ? 1 : i % 2 === 1 ? 4 : 2) * value(i / PARTS);
  const time = sum / (3 * PARTS);
  if (!(time > 0 && time < 1e8))
    throw new ModelError(
      'NO_CURE',
      'With these cure constants the resin never gels at this temperature. Check A1, E1, A2 and E2 and their units (1/s, J/mol).',
      { temperature },
    );
  return time;
}

export function requireKinetics(kinetics: Kinetics): void {
  const { A1, A2, n, m, gelConversion, viscosityA } = kinetics;
  if (!(A1 >= 0 && A2 >= 0 && A1 + A2 > 0 && m >= 0 && n >= 0))
    throw new ModelError(
      'NO_CURE',
      'The cure constants A1, A2, m and n must be zero or more, and A1 or A2 above zero. Correct them from their source.',
    );
  requireFraction(gelConversion, 'The conversion at gel');
  requirePositive(viscosityA, 'The viscosity constant A', 'Pa s');
}
