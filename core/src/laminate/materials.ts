/** Materials of the stack, SI. Every value may be the shop's own. */
export interface Fabric {
  readonly kind: 'fabric';
  readonly name: string;
  /** kg/m2 */
  readonly arealWeight: number;
  /** kg/m3 */
  readonly fibreDensity: number;
  /** Fibre volume fraction at 100 kPa of compaction, and the exponent of its growth with pressure. */
  readonly compaction: { readonly fractionAt100kPa: number; readonly exponent: number };
  /** One measured point: permeability along 0 degrees and across it, m2, at a fibre volume fraction. */
  readonly permeability: { readonly fraction: number; readonly along: number; readonly across: number };
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
  /** Resin taken by holes, slits and cut faces, m3 per m2. */
  readonly resinUptake: number;
}

export interface PeelPly {
  readonly kind: 'peelPly';
  readonly name: string;
  /** Resin left in it, m3 per m2. */
  readonly resinUptake: number;
}

export type StackMaterial = Fabric | FlowMesh | Core | PeelPly;
