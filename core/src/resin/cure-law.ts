import type { CureLaw } from '../flow/moving-resin.ts';
import { ModelError } from '../model-error.ts';
import { REACH } from './curve-fit.ts';
import { cureRate, requireKinetics, viscosityOfKinetics } from './kinetics.ts';
import { ASSUMED_GEL_RATIO, chemistryOf, freshViscosity, type ResinSystem } from './resin-system.ts';
import { gelTime } from './gel-time.ts';

/**
 * How a resin thickens, whatever its temperature does meanwhile. With kinetics the state is the conversion; without, it is
 * the equivalent isothermal age, integral dt / t_gel(T), and the gel is at 1. A gel table is carried on a little past its edge.
 * @param factors multiply viscosity and gel time, for scatter
 * @throws ModelError of the resin's curves, also later when a temperature lies outside them
 * Checked by resin.test.ts.
 */
export function cureLawOf(
  resin: ResinSystem,
  factors: { viscosity: number; gelTime: number } = { viscosity: 1, gelTime: 1 },
): CureLaw {
  const { kinetics } = resin;
  if (kinetics) {
    requireKinetics(kinetics);
    return {
      gelState: kinetics.gelConversion,
      rate: (conversion, temperature) => cureRate(kinetics, conversion, temperature) / factors.gelTime,
      viscosity: (conversion, temperature) =>
        factors.viscosity * viscosityOfKinetics(kinetics, conversion, temperature),
    };
  }
  const gelAt = remembered((temperature) => factors.gelTime * gelTime(resin, temperature, REACH));
  const freshAt = remembered((temperature) => factors.viscosity * freshViscosity(resin, temperature));
  const thickening = thickeningOf(resin);
  return {
    gelState: 1,
    rate: (_, temperature) => 1 / gelAt(temperature),
    viscosity: (age, temperature) => freshAt(temperature) * thickening(age),
  };
}

/**
 * Viscosity over fresh viscosity by chemistry: an amine thickens exponentially with age; a radical cure stays thin while its
 * inhibitor lasts, exp(ln R a^n).
 * Source: n = 8, R = 20, from memory. Checked by resin.test.ts.
 */
function thickeningLaw(resin: ResinSystem): (age: number) => number {
  const growth = Math.log(Math.max(resin.gelViscosityRatio ?? ASSUMED_GEL_RATIO, 1 + 1e-6));
  return chemistryOf(resin) === 'radical'
    ? (age) => Math.exp(growth * age ** INHIBITOR_EXPONENT)
    : (age) => Math.exp(growth * age);
}

const INHIBITOR_EXPONENT = 8;

/** Viscosity over the one that the entered points give, against age: the measured curve at its own level where there is one, then by chemistry. */
export function thickeningOf(resin: ResinSystem): (age: number) => number {
  const law = thickeningLaw(resin);
  const curve = resin.viscosityCurve;
  if (!curve) return law;
  const { points, temperature } = curve;
  if (
    points.length < 2 ||
    points.some((p, i) => !(p.viscosity > 0) || (i > 0 && !(p.time > points[i - 1].time)))
  )
    throw new ModelError(
      'VISCOSITY_CURVE',
      `The viscosity curve of ${resin.name} needs two or more points with rising times and viscosities above zero. Correct the table.`,
    );
  const gel = gelTime(resin, temperature);
  const ages = points.map((p) => p.time / gel);
  const logs = points.map((p) => Math.log(p.viscosity));
  const level = Math.log(freshViscosity(resin, temperature));
  const last = ages.length - 1;
  return (age) => {
    if (age > ages[last]) return Math.exp(logs[last] - level) * (law(age) / law(ages[last]));
    let n = 0;
    while (n + 2 < ages.length && ages[n + 1] < age) n += 1;
    const share = (age - ages[n]) / (ages[n + 1] - ages[n]);
    return Math.exp(logs[n] + share * (logs[n + 1] - logs[n]) - level);
  };
}

/** Age at which the measured curve ends, past which chemistry carries it on; null where it reaches gel, or there is none. */
export function curveEndOf(resin: ResinSystem): number | null {
  const curve = resin.viscosityCurve;
  if (!curve || resin.kinetics) return null;
  const end = curve.points[curve.points.length - 1].time / gelTime(resin, curve.temperature);
  return end < 1 ? end : null;
}

/** A curve is read at few temperatures again and again. */
function remembered(read: (temperature: number) => number): (temperature: number) => number {
  const known = new Map<number, number>();
  return (temperature) => {
    let value = known.get(temperature);
    if (value === undefined) {
      value = read(temperature);
      if (known.size > 5000) known.clear();
      known.set(temperature, value);
    }
    return value;
  };
}
