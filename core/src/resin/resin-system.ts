import { ModelError, requirePositive } from '../model-error.ts';

/** What a data sheet gives, SI. */
export interface ResinSystem {
  readonly name: string;
  /** Mixed density before cure, kg/m3. */
  readonly density: number;
  /** Mixed viscosity at temperatures. At least one point. */
  readonly viscosityPoints: readonly { readonly temperature: number; readonly viscosity: number }[];
  /** Gel time at temperatures. At least one point. */
  readonly gelPoints: readonly { readonly temperature: number; readonly time: number }[];
  /** Viscosity at gel over viscosity when fresh; null takes ASSUMED_GEL_RATIO. */
  readonly gelViscosityRatio: number | null;
  /** Parts by weight of hardener or catalyst to 100 of resin. */
  readonly hardenerParts: number;
}

const GAS_CONSTANT = 8.314462618;
/** J/mol, for a property known at one temperature only. From memory: typical of infusion epoxies. */
export const ASSUMED_ACTIVATION_ENERGY = 50_000;
/** Common practice, no source: a resin still called pourable at the end of its working life is some twenty times thicker. */
export const ASSUMED_GEL_RATIO = 20;
/** Kelvin beyond the entered points that a curve may be followed. */
const REACH = 12;

/**
 * Viscosity when freshly mixed: ln mu = a + E / (R T) through the entered points (least squares from two on).
 * @param temperature K
 * @returns Pa s
 * @throws ModelError RESIN_NO_DATA, RESIN_OUT_OF_RANGE
 * Source: Andrade 1930. Checked by resin.test.ts.
 */
export function freshViscosity(resin: ResinSystem, temperature: number): number {
  const points = resin.viscosityPoints.map((point) => ({
    temperature: point.temperature,
    value: point.viscosity,
  }));
  return arrhenius({ points, temperature, what: `viscosity of ${resin.name}` });
}

/** Gel time at constant temperature, s; the same curve through the entered gel times. Errors as freshViscosity. */
export function gelTime(resin: ResinSystem, temperature: number): number {
  const points = resin.gelPoints.map((point) => ({ temperature: point.temperature, value: point.time }));
  return arrhenius({ points, temperature, what: `gel time of ${resin.name}` });
}

function arrhenius(curve: {
  points: readonly { temperature: number; value: number }[];
  temperature: number;
  what: string;
}): number {
  const { points, temperature, what } = curve;
  if (points.length === 0)
    throw new ModelError('RESIN_NO_DATA', `The ${what} has no entered point. Type one from its data sheet.`, {
      what,
    });
  for (const point of points) {
    requirePositive(point.value, `The ${what}`, 'SI');
    requirePositive(point.temperature, `A temperature of the ${what}`, 'K');
  }
  const coldest = Math.min(...points.map((point) => point.temperature));
  const warmest = Math.max(...points.map((point) => point.temperature));
  if (!(temperature >= coldest - REACH && temperature <= warmest + REACH)) {
    const celsius = (kelvin: number) => `${(kelvin - 273.15).toFixed(0)} °C`;
    throw new ModelError(
      'RESIN_OUT_OF_RANGE',
      `The ${what} is known from ${celsius(coldest)} to ${celsius(warmest)}; ${celsius(temperature)} is too far off to guess. Enter a point nearer to it.`,
      { temperature, coldest, warmest },
    );
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
  const slope = bottom > 0 ? top / bottom : ASSUMED_ACTIVATION_ENERGY / GAS_CONSTANT;
  return Math.exp(meanLog + slope * (1 / temperature - meanInverse));
}
