import { ModelError, requireFraction, requirePositive } from '../model-error.ts';

/** Principal permeabilities of a fabric, m2: along its 0 direction, across it in the plane, through the thickness. */
export interface Permeability {
  readonly along: number;
  readonly across: number;
  readonly through: number;
}

/** One measured point, scaled by Carman-Kozeny. */
export interface MeasuredPoint {
  readonly fraction: number;
  readonly along: number;
  readonly across: number;
  /** null when nobody measured it. */
  readonly through?: number | null;
}

/** Aligned bundles as Gebart computes them from their fibres. */
export interface AlignedFibres {
  /** m */
  readonly fibreRadius: number;
  readonly packing: 'quadratic' | 'hexagonal';
}

export type PermeabilityLaw =
  MeasuredPoint | { readonly table: readonly MeasuredPoint[] } | { readonly fibres: AlignedFibres };

/** Through-thickness over the smaller in-plane permeability where it was not measured, and the least and most that fabrics have; from memory. */
export const ASSUMED_THROUGH = 0.05;
export const THROUGH_SHARES = [0.02, 0.1] as const;

/**
 * Permeability of a fabric at a fibre volume fraction: measured points are interpolated straight in log K; beyond them,
 * and with one point only, K ~ (1 - V)^3 / V^2.
 * @throws ModelError NOT_POSITIVE, NOT_A_FRACTION, PERMEABILITY_EMPTY, PACKING_LIMIT naming the material
 * Source: Carman 1937; Gebart 1992. Checked by laminate.test.ts.
 */
export function permeabilityAt(law: PermeabilityLaw, fraction: number, name: string): Permeability {
  if ('fibres' in law) return gebart(law.fibres, fraction, name);
  const points = 'table' in law ? [...law.table].sort((a, b) => a.fraction - b.fraction) : [law];
  if (points.length === 0)
    throw new ModelError(
      'PERMEABILITY_EMPTY',
      `The permeability table of ${name} is empty. Enter at least one measured point.`,
    );
  points.forEach((point) => requirePoint(point, name));
  const above = points.findIndex((point) => point.fraction >= fraction);
  if (above <= 0) {
    const end = above === 0 ? points[0] : points[points.length - 1];
    const scale = carmanKozeny(fraction) / carmanKozeny(end.fraction);
    const { along, across, through } = filledIn(end);
    return { along: scale * along, across: scale * across, through: scale * through };
  }
  const [low, high] = [filledIn(points[above - 1]), filledIn(points[above])];
  const span = points[above].fraction - points[above - 1].fraction;
  const share = span > 0 ? (fraction - points[above - 1].fraction) / span : 1;
  const mix = (a: number, b: number) => Math.exp((1 - share) * Math.log(a) + share * Math.log(b));
  return {
    along: mix(low.along, high.along),
    across: mix(low.across, high.across),
    through: mix(low.through, high.through),
  };
}

function filledIn({ along, across, through }: MeasuredPoint): Permeability {
  return { along, across, through: through ?? ASSUMED_THROUGH * Math.min(along, across) };
}

function requirePoint({ fraction, along, across, through }: MeasuredPoint, name: string) {
  requirePositive(along, `Permeability of ${name}`, 'm2');
  requirePositive(across, `Permeability across ${name}`, 'm2');
  if (through != null) requirePositive(through, `Permeability through ${name}`, 'm2');
  requireFraction(fraction, `Fibre volume fraction of the permeability of ${name}`);
}

/** Carman-Kozeny dependence of permeability on the fibre volume fraction, without its constant. */
function carmanKozeny(fraction: number): number {
  return (1 - fraction) ** 3 / fraction ** 2;
}

/** Constants of Gebart 1992, table 1: c along, C1 across, and the fraction at which fibres touch. */
const packings = {
  quadratic: { c: 57, C1: 16 / (9 * Math.PI * Math.SQRT2), most: Math.PI / 4 },
  hexagonal: { c: 53, C1: 16 / (9 * Math.PI * Math.sqrt(6)), most: Math.PI / (2 * Math.sqrt(3)) },
};

/**
 * Permeability along and across aligned fibres: K_par = (8 R^2 / c) (1-V)^3 / V^2, K_perp = C1 (sqrt(Vmax/V) - 1)^(5/2) R^2.
 * @throws ModelError PACKING_LIMIT at or past the fraction where fibres touch
 * Source: Gebart 1992 (J. Composite Materials 26:1100).
 */
export function gebart(
  { fibreRadius, packing }: AlignedFibres,
  fraction: number,
  name: string,
): Permeability {
  requirePositive(fibreRadius, `Fibre radius of ${name}`, 'm');
  requireFraction(fraction, `Fibre volume fraction of ${name}`);
  const { c, C1, most } = packings[packing];
  if (fraction >= most)
    throw new ModelError(
      'PACKING_LIMIT',
      `${name} is pressed to a fibre volume of ${(100 * fraction).toFixed(0)} %, where its fibres touch and let nothing through (${(100 * most).toFixed(0)} % for this packing). Lower the fibre volume or choose the other packing.`,
      { fraction, most },
    );
  const across = C1 * (Math.sqrt(most / fraction) - 1) ** 2.5 * fibreRadius ** 2;
  return { along: ((8 * fibreRadius ** 2) / c) * carmanKozeny(fraction), across, through: across };
}
