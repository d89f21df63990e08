import type { GateBoard } from './gates.ts';
import type { FlowNetwork } from './network.ts';

/** How a resin thickens: a state of cure that grows from 0, and the viscosity that goes with it. */
export interface CureLaw {
  /** State at which the resin is a gel. */
  readonly gelState: number;
  /** Growth of the state, 1/s. @param temperature K */
  rate(state: number, temperature: number): number;
  /** Pa s */
  viscosity(state: number, temperature: number): number;
}

/** Resin whose viscosity differs from place to place; a run with it counts seconds, not fluidity time. */
export interface MovingResin {
  readonly law: CureLaw;
  /** K, at a node and a time in s. */
  temperature(node: number, time: number): number;
  /** State of what leaves a pot (the first when left out) at a time, after a volume (m3) has left it: warmer pots and later batches differ. */
  inletState(time: number, drawn: number, pot?: number): number;
}

/** Share of the gel state by which the resin may thicken in one step. */
const LARGEST_CURE_STEP = 0.02;
/** Fluidity that is left when the resin has gelled, relative to fresh: still, but solvable. */
const STILL = 1e-5;

/**
 * Follows the state of cure with the flow: each node's resin cures where it is and mixes with what comes in. Nodes are
 * taken from high to low pressure, so one pass is implicit and any step length is stable (upwind finite volumes).
 * @returns state 0.. a node, its fluidity and one step's advance
 * Checked by effects.test.ts (uniform resin keeps one age; residence time along a strip).
 */
export function createCureField(network: FlowNetwork, resin: MovingResin) {
  const { nodeCount, rowStart, columns, conductance, storage } = network;
  const { law } = resin;
  const state = new Float64Array(nodeCount);
  const order = Int32Array.from({ length: nodeCount }, (_, i) => i);
  const next = new Float64Array(nodeCount);
  const inlets: number[] = [];

  return {
    state,
    /** 1 / viscosity of each node in the middle of a step, for a network in seconds. */
    fluidity(run: {
      time: number;
      step: number;
      level: Float64Array;
      drawn: Float64Array;
      out: Float64Array;
    }) {
      const { level, out } = run;
      const middle = run.time + 0.5 * run.step;
      const inlet = resin.inletState(middle, run.drawn[0]);
      for (let i = 0; i < nodeCount; i++) {
        const temperature = resin.temperature(i, middle);
        // Dry nodes take what comes next: the freshest guess is the inlet's own state.
        const own = level[i] > 0 ? state[i] + 0.5 * run.step * law.rate(state[i], temperature) : inlet;
        const fresh = 1 / law.viscosity(0, temperature);
        out[i] =
          own >= law.gelState ? STILL * fresh : Math.max(STILL * fresh, 1 / law.viscosity(own, temperature));
      }
    },
    /** Longest step in which no node's resin thickens by more than a small share of its life. */
    stepLimit(time: number): number {
      let fastest = 0;
      for (let i = 0; i < nodeCount; i++)
        fastest = Math.max(fastest, law.rate(state[i], resin.temperature(i, time)));
      return (LARGEST_CURE_STEP * law.gelState) / fastest;
    },
    /**
     * @param run time and what each pot has given at the end of the step; impulse of the step; level before it; the board marks the pots
     */
    advance(run: {
      time: number;
      step: number;
      drawn: Float64Array;
      impulse: Float64Array;
      before: Float64Array;
      board: Pick<GateBoard, 'isFeed' | 'potOf'>;
    }) {
      const { time, step, impulse, before, board } = run;
      run.drawn.forEach((drawn, pot) => (inlets[pot] = resin.inletState(time, drawn, pot)));
      order.sort((a, b) => impulse[b] - impulse[a]);
      for (const i of order) {
        if (board.isFeed[i]) {
          next[i] = inlets[board.potOf[i]];
          continue;
        }
        let volume = storage[i] * before[i];
        let sum = volume * cured(i, time, step);
        for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
          const j = columns[e];
          const flow = conductance[e] * (impulse[j] - impulse[i]);
          if (flow <= 0) continue;
          volume += flow;
          sum += flow * next[j];
        }
        next[i] = volume > 0 ? sum / volume : inlets[0];
      }
      state.set(next);
    },
  };

  /** State after a step where it is (midpoint rule). */
  function cured(i: number, time: number, step: number): number {
    const middle = state[i] + 0.5 * step * law.rate(state[i], resin.temperature(i, time - step));
    return state[i] + step * law.rate(middle, resin.temperature(i, time - 0.5 * step));
  }
}
