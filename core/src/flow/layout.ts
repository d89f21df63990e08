import type { Mesh } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import type { PartShape } from '../layouts/frame.ts';
import type { FlowLayer, SoftLaminate } from '../laminate/layers.ts';
import type { FillRequest } from './fill-types.ts';
import type { CureLaw } from './moving-resin.ts';
import type { Patchwork } from './patchwork.ts';

export interface LayoutLine {
  readonly id: string;
  readonly name: string;
  /** A race is an edge along which resin runs ahead in a gap. */
  readonly kind: 'feed' | 'vent' | 'race';
  /** One point, or a polyline; m. */
  readonly points: readonly Point[];
  /** Bore of the channel, m; the radius of a point is half of it; the width of the gap of a race. */
  readonly bore: number;
  /** Feeds: the hose from pot or tee; null puts the line at pot pressure along its whole length. */
  readonly hose?: { readonly length: number; readonly bore: number; readonly tee?: string | null } | null;
  /** Where the hose joins, as a share of the line's length. */
  readonly inlet?: number;
  /** Height of the resin in the pot over the inlet, m. */
  readonly potLevel?: number;
  /** Which of the pots it draws from; the first when left out. */
  readonly pot?: number;
  readonly startsOpen: boolean;
  readonly actions: readonly LayoutAction[];
}

export interface LayoutAction {
  /** Told with the event that it makes. */
  readonly id?: string;
  /** 0 shut, 1 open, in between throttled. */
  readonly opening: number;
  readonly when: LayoutTrigger;
}

export type LayoutTrigger =
  /** Run time. */
  | { readonly kind: 'time'; readonly time: number }
  /** The front has passed a line or mark and gone a distance beyond; delay in s on the clock. A line by the place where it comes first, its middle, or where it comes last (usual). */
  | {
      readonly kind: 'passed';
      readonly what: string;
      readonly at?: 'first' | 'middle' | 'last';
      readonly distance: number;
      readonly delay: number;
    }
  | { readonly kind: 'zoneFull'; readonly zone: number; readonly delay: number }
  | { readonly kind: 'drawn'; readonly volume: number; readonly delay: number }
  | { readonly kind: 'opened'; readonly what: string; readonly delay: number }
  | { readonly kind: 'full'; readonly delay: number };

/** Laminate of the whole part (no outline) or of a zone of it; later zones lie over earlier ones. */
export interface ZoneLaminate {
  /** Of the zone; none for the laminate of the whole part. */
  readonly id?: string;
  readonly name: string;
  readonly outline: readonly Point[] | null;
  /** Bag side first; one layer is the laminate averaged through its thickness. */
  readonly layers: readonly FlowLayer[];
  readonly soft: SoftLaminate | null;
  /** Of plies and core, m: as high as a gap beside it. */
  readonly thickness: number;
  /** A strip between part and vent that slows the resin: it need not fill. */
  readonly isBrake?: boolean;
  /**
   * The same where coverings do not lie: 2^n - 1 of them with n coverings, at place m - 1 that without those whose bits m has
   * (1 the first covering, 2 the second, ...).
   */
  readonly uncovered?: readonly {
    readonly layers: readonly FlowLayer[];
    readonly soft: SoftLaminate | null;
  }[];
}

export interface Mark extends Point {
  readonly id: string;
  readonly name: string;
}

export interface ForecastRequest {
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly lines: readonly LayoutLine[];
  readonly marks?: readonly Mark[];
  readonly zones: readonly ZoneLaminate[];
  /** Where each layer lies that does not lie everywhere: flow mesh, peel ply or film, in patches. */
  readonly coverings?: readonly (readonly PartShape[])[];
  /** Where the laminate takes resin better or worse than it is said to. */
  readonly patchwork?: Patchwork | null;
  /** Actions that are not to happen, by their ids: they have, or somebody does otherwise. */
  readonly done?: readonly string[];
  /** Tees: several feeds behind one hose from the pot. */
  readonly tees?: readonly {
    readonly id: string;
    readonly hose: { readonly length: number; readonly bore: number };
  }[];
  /** Absolute, Pa: on the pot, and under the bag. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  /** kg/m3 */
  readonly density: number;
  /** Rise of the plan along its x and y axes (sine of the angle); null leaves weight out of a flat part. */
  readonly rise?: { readonly x: number; readonly y: number } | null;
  /** Shell to run on instead of the flat plan; its lines are those of the request. */
  readonly shell?: Mesh;
  /** Where the laminate is soft, go on to this run time after the fill. */
  readonly until?: number;
  /** Resin of more than one viscosity: times are then seconds. Temperature by zone and time. */
  readonly resin?: {
    readonly law: CureLaw;
    temperature(zone: number, time: number): number;
    inletState(time: number, drawn: number, pot?: number): number;
  };
  readonly later?: FillRequest['later'];
  readonly nodeCount: number;
  readonly steps?: number;
  /** See FillRequest and MeshRequest. */
  readonly isGlance?: boolean;
  readonly onProgress?: (filledFraction: number) => boolean | void;
  /** See FillRequest: a run of the same plan goes on from where one stood, or stops on its way. */
  readonly start?: FillRequest['start'];
  readonly stopAt?: number;
}
