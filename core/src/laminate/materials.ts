import { rectangularDuct } from '../flow/channels.ts';
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
  /** Resin taken by holes, slits and cut faces, m3 per m2; null works it out from them. */
  readonly resinUptake: number | null;
  /** Holes through it, by which the far skin fills; null when it has none. */
  readonly holes?: { readonly diameter: number; readonly spacing: number } | null;
  /** Saw cuts in both directions, as deep as a share of the thickness. */
  readonly slits?: { readonly width: number; readonly spacing: number; readonly depth: number } | null;
}

/** Resin that a cut face takes, m3/m2: from memory, 0.1 to 0.25 mm. */
const FACE_PICK_UP = 1.5e-4;

/**
 * Resin a square metre of core takes, m3/m2: as measured, or the volume of its holes (square pattern) and its slits (both
 * ways, crossings counted once), and what its two faces pick up. Arithmetic; checked by worked-examples.test.ts.
 */
export function coreUptake({ thickness, resinUptake, holes, slits }: Core): number {
  if (resinUptake !== null) return resinUptake;
  const inHoles = holes ? ((Math.PI / 4) * holes.diameter ** 2 * thickness) / holes.spacing ** 2 : 0;
  const inSlits = slits ? slitShare(slits) * slits.depth * thickness : 0;
  return inHoles + inSlits + 2 * FACE_PICK_UP;
}

/** Share of a face that slits both ways take, crossings counted once. */
function slitShare({ width, spacing }: NonNullable<Core['slits']>): number {
  const share = width / spacing;
  return 2 * share - share * share;
}

/**
 * What slits carry along a face, permeability x thickness, m3: (w^3 d / 12) (1 - 0.63 w / d) / s each way.
 * Source: rectangular duct, deeper than wide (White, Viscous Fluid Flow, from memory). Checked by worked-examples.test.ts.
 */
export function slitFlow({ thickness, slits }: Core): number {
  if (!slits) return 0;
  const { width, spacing } = slits;
  return rectangularDuct(width, slits.depth * thickness).conductance / spacing;
}

const isCutThrough = ({ slits }: Core): boolean => slits?.depth === 1;

/**
 * What holes, and slits cut right through, carry from face to face, per area: m. None where it has neither.
 * Source: Hagen-Poiseuille, n pi d^4 / (128 t); plane flow in slits. Checked by worked-examples.test.ts.
 */
export function coreThrough(core: Core): number {
  const { thickness, holes, slits } = core;
  const byHoles = holes ? (Math.PI * holes.diameter ** 4) / (128 * thickness * holes.spacing ** 2) : 0;
  const bySlits = slits && isCutThrough(core) ? (slitShare(slits) * slits.width ** 2) / (12 * thickness) : 0;
  return byHoles + bySlits;
}

export interface PeelPly {
  readonly kind: 'peelPly';
  readonly name: string;
  /** Resin left in it, m3 per m2. */
  readonly resinUptake: number;
  /** m, and permeability through it, m2; null takes what is usual. */
  readonly thickness?: number | null;
  readonly through?: number | null;
}

/** From memory: a woven peel ply under vacuum. */
const USUAL_PEEL_PLY = { thickness: 1.2e-4, through: 2e-12 };

/** Resistance of a peel ply to flow through it, 1/m: thickness over permeability. */
export const peelPlyResistance = ({ thickness, through }: PeelPly): number =>
  (thickness ?? USUAL_PEEL_PLY.thickness) / (through ?? USUAL_PEEL_PLY.through);

/** Film with holes, between laminate and mesh or breather. */
export interface Film {
  readonly kind: 'film';
  readonly name: string;
  readonly thickness: number;
  /** In a square pattern; null takes what is usual. */
  readonly holes?: { readonly diameter: number; readonly spacing: number } | null;
}

/** Common practice, no source. */
const USUAL_FILM_HOLES = { diameter: 5e-4, spacing: 0.025 };

/**
 * What a perforated film lets through per area, m: n / (128 t / (pi d^4) + 24 / d^3 + 1 / (2 d sqrt(K_xy K_z))), the last term
 * for the spreading in the laminate under a hole, which rules.
 * @param under permeability of the laminate beneath, in its plane and through it, m2
 * Source: Hagen-Poiseuille; orifice and disc in a half-space, both from memory. Checked by worked-examples.test.ts.
 */
export function filmThrough({ thickness, holes }: Film, under: { inPlane: number; through: number }): number {
  const { diameter: d, spacing } = holes ?? USUAL_FILM_HOLES;
  const spread = 1 / (2 * d * Math.sqrt(under.inPlane * under.through));
  return 1 / spacing ** 2 / ((128 * thickness) / (Math.PI * d ** 4) + 24 / d ** 3 + spread);
}
