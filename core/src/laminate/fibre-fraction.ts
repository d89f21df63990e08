import { ModelError, requirePositive } from '../model-error.ts';

/** Densities of fibre and cured resin, kg/m3. */
export interface Densities {
  readonly fibre: number;
  readonly resin: number;
}

/** What a laminate is made of by volume, 0-1 each; voids as measured may come out a little below 0. */
export interface Contents {
  readonly fibre: number;
  readonly resin: number;
  readonly voids: number;
}

/**
 * Contents of a coupon whose resin was burned or dissolved away: V_f = (M_f / M_i) rho_c / rho_f, V_m = (M_i - M_f) / M_i rho_c / rho_m.
 * @param coupon masses of it before and of the fibre that is left, kg; its density, kg/m3
 * @throws ModelError NOT_POSITIVE; MORE_LEFT where more is left than was there
 * Source: ASTM D3171 method I, ASTM D2584 (ignition loss), ASTM D2734 (voids). Checked by fibre-fraction.test.ts.
 */
export function contentsFromBurnOff(
  coupon: { readonly mass: number; readonly left: number; readonly density: number },
  { fibre, resin }: Densities,
): Contents {
  const { mass, left, density } = coupon;
  requirePositive(mass, 'Mass of the coupon', 'kg');
  requirePositive(left, 'Mass that is left', 'kg');
  requirePositive(density, 'Density of the coupon', 'kg/m³');
  if (left >= mass)
    throw new ModelError(
      'MORE_LEFT',
      'As much is left as was there before: nothing has burned. Check which of the two was weighed first.',
      { mass, left },
    );
  const [byFibre, byResin] = [((left / mass) * density) / fibre, (((mass - left) / mass) * density) / resin];
  return { fibre: byFibre, resin: byResin, voids: 1 - byFibre - byResin };
}

/**
 * Fibre volume fraction from the thickness: V_f = sum of areal weights / (rho_f h).
 * @param arealWeight of all plies, kg/m2  @param thickness m, without a core
 * @throws ModelError NOT_POSITIVE
 * Source: ASTM D3171 method II. Checked by fibre-fraction.test.ts.
 */
export function fractionFromThickness(arealWeight: number, fibreDensity: number, thickness: number): number {
  requirePositive(thickness, 'Thickness', 'm');
  return arealWeight / (fibreDensity * thickness);
}

/**
 * Fibre volume fraction from the weight, without voids: what is not fibre is resin.
 * @param masses of the laminate without core, and of the fibre in it, kg
 * @throws ModelError NOT_POSITIVE; LIGHTER_THAN_FIBRE where it weighs no more than its fibre
 * Source: ASTM D3171, rule of mixtures. Checked by fibre-fraction.test.ts.
 */
export function fractionFromWeight(
  masses: { readonly laminate: number; readonly fibre: number },
  { fibre, resin }: Densities,
): number {
  requirePositive(masses.laminate, 'Mass of the laminate', 'kg');
  if (!(masses.laminate > masses.fibre))
    throw new ModelError(
      'LIGHTER_THAN_FIBRE',
      'It weighs no more than its fibre alone. Say whether flange, inserts or core were weighed with it.',
      masses,
    );
  const ofFibre = masses.fibre / fibre;
  return ofFibre / (ofFibre + (masses.laminate - masses.fibre) / resin);
}
