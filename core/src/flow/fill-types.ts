import type { Footprint } from './footprint.ts';
import type { Gate } from './gates.ts';
import type { Gravity } from './gravity.ts';
import type { MovingResin } from './moving-resin.ts';
import type { FlowNetwork } from './network.ts';
import type { ObstacleSolver } from './obstacle.ts';
import type { Action } from './sequence.ts';
import type { Softness } from './softness.ts';
import type { TrappedRegion } from './trapped-air.ts';

export interface FillRequest {
  readonly network: FlowNetwork;
  readonly gates: readonly Gate[];
  readonly actions?: readonly Action[];
  /** Absolute pressures, Pa: at open feeds unless they have their own, and under the bag ahead of the front. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  readonly gravity?: Gravity;
  readonly softness?: Softness;
  /** Resin of more than one viscosity; the run then counts seconds. */
  readonly resin?: MovingResin;
  /** Run time so many seconds on the clock after a run time: needed by delays only. */
  readonly later?: (time: number, seconds: number) => number;
  /** After the fill the run goes on to this time at the latest, while a soft laminate still settles. */
  readonly until?: number;
  /** The run ends at this time at the latest, filled or not. */
  readonly stopAt?: number;
  /** Steps the fill is sampled with; arrival times lie between samples. 100 by default. */
  readonly steps?: number;
  /** A glance, for a hand that is dragging: what happens within a step is timed and volumes balance less finely. */
  readonly isGlance?: boolean;
  /** Where the run starts; dry, at time 0, by default. */
  readonly start?: FillStart;
  /** Nodes that need not fill: the run ends without them. */
  readonly spare?: Int32Array;
  /** Dry area, m2, below which a cut-off region is not told; without it a thousandth of all volume. */
  readonly smallestArea?: number;
  /** Where the nodes lie: the areas of what is cut off are read from it. */
  readonly footprint?: Footprint;
  /** Pressure pictures to keep, spread evenly over the fill; none by default. */
  readonly frames?: number;
  /** The solver to use; the compiled one by default. */
  readonly createSolver?: (network: FlowNetwork) => ObstacleSolver;
  /** Called after each step with the filled share; return false to give up. */
  readonly onProgress?: (filledFraction: number) => boolean | void;
}

/** A fill that is under way, as it was seen or as another run left it. Actions done by then are no longer in the request. */
export interface FillStart {
  readonly time: number;
  /** Fill fraction of each node. */
  readonly level: Float64Array;
  /** Opening of each gate. */
  readonly opening: ArrayLike<number>;
  /** Volumes since the fill began, m3: out of the pots, into vents. */
  readonly drawn: number;
  readonly vented: number;
  /** Of it out of each pot; all out of the first when left out. */
  readonly drawnBy?: ArrayLike<number>;
  /** Pores of each node relative to full compaction; 1 when left out. */
  readonly pores?: Float64Array;
  /** State of cure of each node, with a moving resin; fresh when left out. */
  readonly cure?: Float64Array;
}

/**
 * All times are fluidity times: the integral of dt / viscosity, 1/Pa; multiply by a constant viscosity for seconds. With
 * a moving resin they are seconds.
 */
export interface FillResult {
  /** When the front passes each node; NaN where it does not. Where it had passed before the run's start: the start. */
  readonly arrival: Float64Array;
  /** Every node is full, except for gas that was trapped. */
  readonly isFilled: boolean;
  /** When the last node that fills is full; the end of the run when isFilled is false. */
  readonly fillTime: number;
  readonly samples: readonly FillSample[];
  readonly events: readonly GateEvent[];
  readonly trapped: readonly TrappedRegion[];
  readonly frames: readonly Frame[];
  /** State at the end of the run: pressure above vacuum, Pa, fill fraction, and pores relative to full compaction. */
  readonly final: {
    readonly time: number;
    readonly pressure: Float64Array;
    readonly level: Float64Array;
    readonly pores: Float64Array;
    readonly opening: Float64Array;
    readonly cure: Float64Array | null;
  };
  /** State of cure when the front came, with a moving resin. */
  readonly cureAtArrival: Float64Array | null;
  /** Actions whose trigger never came. */
  readonly waiting: readonly Action[];
  /** Largest mass balance error of a step, as a share of what the step was to bring. */
  readonly massError: number;
  readonly solves: number;
  readonly iterations: number;
}

export interface FillSample {
  readonly time: number;
  /** Volumes since the start, m3: out of the pots, into pores (with what they have widened), into vents. */
  readonly entered: number;
  /** Of it out of each pot. */
  readonly enteredBy: Float64Array;
  readonly stored: number;
  readonly vented: number;
  /** Area that is not wet through, m2; NaN without a footprint. */
  readonly dryArea: number;
}

export interface Frame {
  readonly time: number;
  /** Above vacuum, Pa, a node. */
  readonly pressure: Float32Array;
  /** State of cure a node, with a moving resin. */
  readonly cure: Float32Array | null;
}

export interface GateEvent {
  readonly time: number;
  readonly gate: number;
  readonly kind: 'opens' | 'throttles' | 'closes' | 'reached';
  /** The action that did it; null at the start, and where the front came. */
  readonly actionId: string | null;
  /** Share of the pore volume filled then. */
  readonly filled: number;
}
