import { ModelError, requirePositive } from '../model-error.ts';

export const GAS_CONSTANT = 8.314462618;
/** J/mol, for a property known at one temperature only. From memory: typical of infusion epoxies. */
export const ASSUMED_ACTIVATION_ENERGY = 50_000;
/** Least and most of it that thermosets show; from memory. */
export const ACTIVATION_ENERGIES = [30_000, 70_000] as const;
/** Kelvin beyond the entered points that a curve may be followed. */
export const REACH = 12;

export interface CurvePoint {
  readonly temperature: number;
  readonly value: number;
}

/** ln value = a + E / (R T) through points. */
export interface ArrheniusFit {
  /** J/mol; assumed where there is one point only. */
  readonly activationEnergy: number;
  readonly isAssumed: boolean;
  /** Entered over fitted value of each point, minus one. */
  readonly residuals: readonly number[];
  /** Temperatures between which the fit may be read, K. */
  readonly from: number;
  readonly to: number;
  /** Value at a temperature, whether or not it lies in range. */
  at(temperature: number): number;
}

/**
 * Least squares of ln value over 1/T.
 * @param what names the curve in an error
 * @throws ModelError RESIN_NO_DATA, NOT_POSITIVE
 * Source: Andrade 1930. Checked by resin.test.ts.
 */
export function fitArrhenius(points: readonly CurvePoint[], what: string): ArrheniusFit {
  if (points.length === 0)
    throw new ModelError('RESIN_NO_DATA', `The ${what} has no entered point. Type one from its data sheet.`, {
      what,
    });
  for (const point of points) {
    requirePositive(point.value, `The ${what}`, 'SI');
    requirePositive(point.temperature, `A temperature of the ${what}`, 'K');
  }
  const n = points.length;
  const meanInverse = points.reduce((sum, p) => sum + 1 / p.temperature, 0) / n;
  const meanLog = points.reduce((sum, p) => sum + Math.log(p.value), 0) / n;
  let [top, bottom] = [0, 0];
  for (const p of points) {
    const d = 1 / p.temperature - meanInverse;
    top += d * (Math.log(p.value) - meanLog);
    bottom += d * d;
  }
  const isAssumed = !(bottom > 0);
  const slope = isAssumed ? ASSUMED_ACTIVATION_ENERGY / GAS_CONSTANT : top / bottom;
  const at = (temperature: number) => Math.exp(meanLog + slope * (1 / temperature - meanInverse));
  const temperatures = points.map((point) => point.temperature);
  return {
    activationEnergy: slope * GAS_CONSTANT,
    isAssumed,
    residuals: points.map((point) => point.value / at(point.temperature) - 1),
    from: Math.min(...temperatures) - REACH,
    to: Math.max(...temperatures) + REACH,
    at,
  };
}

/** Value of a fit where its points allow it. @throws ModelError RESIN_OUT_OF_RANGE */
export function readFit(fit: ArrheniusFit, temperature: number, what: string): number {
  if (!(temperature >= fit.from && temperature <= fit.to)) {
    const celsius = (kelvin: number) => `${(kelvin - 273.15).toFixed(0)} °C`;
    throw new ModelError(
      'RESIN_OUT_OF_RANGE',
      `The ${what} is known from ${celsius(fit.from + REACH)} to ${celsius(fit.to - REACH)}; ${celsius(temperature)} is too far off to guess. Enter a point nearer to it.`,
      { temperature, coldest: fit.from + REACH, warmest: fit.to - REACH },
    );
  }
  return fit.at(temperature);
}
