import { ModelError, requirePositive } from '../model-error.ts';
import type { Fabric } from './materials.ts';

/**
 * Fibre volume fraction of a fabric under pressure: V = V1 (s / 100 kPa)^b, on its dry curve or, where it was measured, the
 * wet one.
 * @param pressure compaction pressure, Pa, > 0
 * @throws ModelError PACKING_LIMIT when the curve leaves 0-0.8, which no fabric reaches under a bag
 * Source: power law, Robitaille & Gauvin 1998 (Polymer Composites 19:198).
 */
export function fractionUnderPressure(
  { name, compaction }: Fabric,
  pressure: number,
  state: 'dry' | 'wet' = 'dry',
): number {
  requirePositive(pressure, 'Compaction pressure', 'Pa');
  const curve = (state === 'wet' && compaction.wet) || compaction;
  return packed(curve.fractionAt100kPa * (pressure / 1e5) ** curve.exponent, name);
}

/**
 * Fraction of a soaked fabric whose load has come down from the one it was pressed with: V = V_wet(most) (s / most)^b_u,
 * b_u the unloading exponent (the wet curve's own where none was measured). It goes back up the same curve.
 * @param most pressure before the resin came, Pa
 * Source: as fractionUnderPressure; Correia et al. 2005 (Composites A 36:1645) for the three curves.
 */
export function fractionUnloaded(fabric: Fabric, pressure: number, most: number): number {
  requirePositive(pressure, 'Compaction pressure', 'Pa');
  const { name, compaction } = fabric;
  const exponent = compaction.unloadingExponent ?? compaction.wet?.exponent ?? compaction.exponent;
  return packed(fractionUnderPressure(fabric, most, 'wet') * (pressure / most) ** exponent, name);
}

function packed(fraction: number, name: string): number {
  if (!(fraction > 0 && fraction < 0.8))
    throw new ModelError(
      'PACKING_LIMIT',
      `${name} comes out at a fibre volume of ${(100 * fraction).toFixed(0)} %, past what fibres can pack. Check its compaction values.`,
      { fraction },
    );
  return fraction;
}

/**
 * Compaction pressure at which a stack of fabrics reaches a mean fibre volume fraction. The plies share the pressure,
 * not the fraction.
 * @param available most pressure the bag can give, Pa
 * @throws ModelError FRACTION_OUT_OF_REACH with the fraction that can be reached
 */
export function pressureForFraction(plies: readonly Fabric[], target: number, available: number): number {
  const reachable = meanFraction(plies, available);
  if (!(target > 0 && target <= reachable + 1e-9))
    throw new ModelError(
      'FRACTION_OUT_OF_REACH',
      `A fibre volume of ${(100 * target).toFixed(1)} % is more than this vacuum can press: ${(100 * reachable).toFixed(1)} % is the most here. Lower the target, or clear it to use what the vacuum gives.`,
      { target, reachable },
    );
  let [low, high] = [Math.log(1e-12), Math.log(available)];
  for (let i = 0; i < 200; i++) {
    const middle = (low + high) / 2;
    if (meanFraction(plies, Math.exp(middle)) < target) low = middle;
    else high = middle;
  }
  return Math.exp(high);
}

/** Fibre volume over laminate volume of soaked plies at one pressure. */
export function meanFraction(plies: readonly Fabric[], pressure: number): number {
  let solid = 0;
  let thickness = 0;
  for (const ply of plies) {
    const own = ply.arealWeight / ply.fibreDensity;
    solid += own;
    thickness += own / fractionUnderPressure(ply, pressure, 'wet');
  }
  return solid / thickness;
}
