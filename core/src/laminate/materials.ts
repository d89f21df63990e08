import type { PermeabilityLaw } from './permeability.ts';

/** Materials of the stack, SI. Every value may be the shop's own. */
export interface Fabric {
  readonly kind: 'fabric';
  readonly name: string;
  /** kg/m2 */
  readonly arealWeight: number;
  /** kg/m3 */
  readonly fibreDensity: number;
  readonly compaction: Compaction;
  readonly permeability: PermeabilityLaw;
}

/** Fibre volume fraction at 100 kPa of compaction, and the exponent of its growth with pressure. */
export interface CompactionCurve {
  readonly fractionAt100kPa: number;
  readonly exponent: number;
}

/** Pressed dry; and, where measured, soaked, and the exponent with which it opens up again as the load comes off. */
export interface Compaction extends CompactionCurve {
  readonly wet?: CompactionCurve | null;
  readonly unloadingExponent?: number | null;
}

export interface FlowMesh {
  readonly kind: 'flowMesh';
  readonly name: string;
  /** m, under vacuum */
  readonly thickness: number;
  readonly porosity: number;
  /** m2 */
  readonly permeability: number;
}

/** Closed-cell core: thickness and mass, and resin only where holes or slits take it. */
export interface Core {
  readonly kind: 'core';
  readonly name: string;
  readonly thickness: number;
  readonly density: number;
  /** Resin taken by holes, slits and cut faces, m3 per m2; null works it out from the holes and slits. */
  readonly resinUptake: number | null;
  /** Holes through it, by which the far skin fills; null when it has none or nobody counted them. */
  readonly holes?: { readonly diameter: number; readonly spacing: number } | null;
  /** Saw cuts in both directions, as deep as a share of the thickness. */
  readonly slits?: { readonly width: number; readonly spacing: number; readonly depth: number } | null;
}

/**
 * Resin a square metre of core takes, m3/m2: as measured, or the volume of its holes (square pattern) and its slits (both
 * ways, crossings counted once). Arithmetic; checked by laminate.test.ts.
 */
export function coreUptake({ thickness, resinUptake, holes, slits }: Core): number {
  if (resinUptake !== null) return resinUptake;
  const inHoles = holes ? ((Math.PI / 4) * holes.diameter ** 2 * thickness) / holes.spacing ** 2 : 0;
  if (!slits) return inHoles;
  const share = slits.width / slits.spacing;
  return inHoles + (2 * share - share * share) * slits.depth * thickness;
}

export interface PeelPly {
  readonly kind: 'peelPly';
  readonly name: string;
  /** Resin left in it, m3 per m2. */
  readonly resinUptake: number;
}
