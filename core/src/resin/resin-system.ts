import { fitArrhenius, readFit } from './curve-fit.ts';
import type { GelTable } from './gel-table.ts';
import { viscosityOfKinetics, type Kinetics } from './kinetics.ts';

/** What a data sheet gives, SI. */
export interface ResinSystem {
  readonly name: string;
  /** Mixed density before cure, kg/m3. */
  readonly density: number;
  /** Mixed viscosity at temperatures. At least one point, unless there are kinetics. */
  readonly viscosityPoints: readonly { readonly temperature: number; readonly viscosity: number }[];
  /** Gel time at temperatures. At least one point, unless there is a gel table or kinetics. */
  readonly gelPoints: readonly { readonly temperature: number; readonly time: number }[];
  /** What the gel points are of: a pot of so many kg, or 0 for a thin film; null where nobody has said, taken as a thin film. */
  readonly gelMass?: number | null;
  /** Viscosity at gel over viscosity when fresh; null takes ASSUMED_GEL_RATIO. */
  readonly gelViscosityRatio: number | null;
  /** Parts by weight of hardener or catalyst to 100 of resin. */
  readonly hardenerParts: number;
  /** How it cures; null takes a gel table over catalyst as the sign of a radical cure. */
  readonly chemistry?: 'amine' | 'radical' | null;
  /** Measured rise of viscosity at one temperature, from the mix on. */
  readonly viscosityCurve?: ViscosityCurve | null;
  /** Gel times over catalyst and temperature; read at hardenerParts. */
  readonly gelTable?: GelTable | null;
  readonly kinetics?: Kinetics | null;
  /** Heat set free from mix to gel, J/kg; null takes what is usual for its chemistry. */
  readonly heatToGel?: number | null;
}

/** The resin as its clock reads it: what does not move viscosity or gel is at a value that says nothing. @param fromPot it warms in a pot */
export function clockResin(resin: ResinSystem, fromPot: boolean): ResinSystem {
  const { name, viscosityPoints, gelPoints, gelViscosityRatio, viscosityCurve, gelTable, kinetics } = resin;
  const isPotLife = (resin.gelMass ?? 0) > 0;
  const warms = fromPot || isPotLife;
  return {
    name,
    density: warms ? resin.density : 1,
    viscosityPoints,
    gelPoints,
    gelMass: isPotLife ? resin.gelMass : 0,
    heatToGel: warms ? resin.heatToGel : undefined,
    gelViscosityRatio,
    hardenerParts: gelTable ? resin.hardenerParts : 0,
    chemistry: chemistryOf(resin),
    viscosityCurve,
    gelTable,
    kinetics,
  };
}

/** Amines thicken from the start; peroxide cures of polyester and vinyl ester stay thin, then set. */
export const chemistryOf = ({ chemistry, gelTable }: ResinSystem): 'amine' | 'radical' =>
  chemistry ?? (gelTable ? 'radical' : 'amine');

export interface ViscosityCurve {
  /** K */
  readonly temperature: number;
  /** Ascending in time, s and Pa s. */
  readonly points: readonly { readonly time: number; readonly viscosity: number }[];
}

/** Common practice, no source: a resin still called pourable at the end of its working life is some twenty times thicker. */
export const ASSUMED_GEL_RATIO = 20;
/** Least and most of it that is usual; from memory. */
export const GEL_RATIOS = [10, 40] as const;

/**
 * Viscosity when freshly mixed: ln mu = a + E / (R T) through the entered points (least squares from two on), or as the
 * kinetics have it.
 * @param temperature K
 * @returns Pa s
 * @throws ModelError RESIN_NO_DATA, RESIN_OUT_OF_RANGE
 * Source: Andrade 1930. Checked by resin.test.ts.
 */
export function freshViscosity(resin: ResinSystem, temperature: number): number {
  if (resin.kinetics) return viscosityOfKinetics(resin.kinetics, 0, temperature);
  const what = `viscosity of ${resin.name}`;
  return readFit(viscosityFit(resin), temperature, what);
}

export function viscosityFit(resin: ResinSystem) {
  const points = resin.viscosityPoints.map(({ temperature, viscosity }) => ({
    temperature,
    value: viscosity,
  }));
  return fitArrhenius(points, `viscosity of ${resin.name}`);
}
