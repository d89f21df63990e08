import { createFixedPoint } from './fixed-point.ts';
import type { FlowNetwork } from './network.ts';

export interface Gravity {
  /** Height of each node, m. */
  readonly elevation: Float64Array;
  /** Of the resin, kg/m3. */
  readonly density: number;
}

export const STANDARD_GRAVITY = 9.80665;

/** Volume that the weight of a step may miss, of what the step moves. */
const SETTLED = 0.02;
const MOST_ROUNDS = 6;
/** Fill fraction by which a node may have given too much. */
const OVERDRAWN = 0.03;
/** Share of a node's own stiffness that a round is eased by. */
const EASE = 0.5;

const clamp = (share: number) => Math.min(1, Math.max(0, share));

/** A step as it was solved: fill fractions before and after it, its impulse, what that moved into each node, m3, and its length. */
export interface SolvedStep {
  readonly level: Float64Array;
  readonly next: Float64Array;
  readonly impulse: Float64Array;
  readonly inflow: Float64Array;
  readonly step: number;
}

export interface Weight {
  /** Volume that weight drives into each node, m3 per unit of run time. */
  readonly flow: Float64Array;
  /** Takes it as the fill fractions have it at the start of a step. */
  start(level: Float64Array): void;
  /**
   * Takes it as it was over the step just solved, and from no node more than it holds.
   * @returns whether that is what the step was solved with, or it is to be solved again, or it is too long to come to rest
   */
  settle(solved: SolvedStep): 'settled' | 'again' | 'tooLong';
}

/**
 * What runs down the branches of a network, m3 per unit of run time, when so much of each node is full.
 * @param share part of its weight that each node gives
 */
function createDownflow(network: FlowNetwork, { elevation, density }: Gravity, share: Float64Array) {
  const { nodeCount, rowStart, columns, conductance } = network;
  const weight = density * STANDARD_GRAVITY;
  /** As if the whole branch were full. */
  const most = (e: number, upper: number, lower: number) =>
    weight * conductance[e] * Math.max(0, elevation[upper] - elevation[lower]);

  /** Part of a branch that weighs: shares of the step in which a node is full come first in the state, mean fills after them. */
  function weighing(state: Float64Array, upper: number, lower: number): number {
    const over = Math.max(0, state[lower] - state[upper]);
    return state[upper] + 0.5 * over + (1 - state[upper]) * state[nodeCount + upper];
  }

  return {
    /** Into each node, for a state. */
    addUp(state: Float64Array, out: Float64Array) {
      out.fill(0);
      for (let i = 0; i < nodeCount; i++)
        for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
          const j = columns[e];
          const volume = share[i] * most(e, i, j) * weighing(state, i, j);
          out[i] -= volume;
          out[j] += volume;
        }
    },
    /** Out of a node, for a state; without one as if it were full. */
    givenBy(i: number, state?: Float64Array): number {
      let sum = 0;
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
        sum += most(e, i, columns[e]) * (state ? share[i] * weighing(state, i, columns[e]) : 1);
      return sum;
    },
  };
}

/**
 * Weight along every branch, k rho g dz, from the upper node as far as it holds resin, so that dry laminate passes none. Over a
 * full node the front stands within the volume of the upper one, half a branch and its filled share above the lower: so
 * much of the branch weighs.
 * Source: weight term of the dam problem, Brezis, Kinderlehrer & Stampacchia 1978. Checked by effects.test.ts (fill up and
 * down, the height at which the front stands).
 */
export function createWeight(network: FlowNetwork, gravity: Gravity): Weight {
  const { nodeCount, rowStart, columns, conductance, storage } = network;
  const point = createFixedPoint(2 * nodeCount);
  /** Share of its weight that a node can give without giving more than it has. */
  const share = new Float64Array(nodeCount);
  const { addUp, givenBy } = createDownflow(network, gravity, share);
  /** Share of the step in which a node is full, and its mean fill fraction while it is not; the same as the step solved has them. */
  const state = new Float64Array(2 * nodeCount);
  const found = new Float64Array(2 * nodeCount);
  const flow = new Float64Array(nodeCount);
  const wanted = new Float64Array(nodeCount);
  let rounds = 0;

  /** A node fills evenly from its own share of what came: what it passed on came after. */
  function readStep({ level, next, impulse }: SolvedStep) {
    for (let i = 0; i < nodeCount; i++) {
      found[nodeCount + i] = 0.5 * (clamp(level[i]) + clamp(next[i]));
      // A full node that drains does so from its first moment; one that fills is full once it has passed something on.
      found[i] = level[i] >= 1 ? clamp(next[i]) : 0;
      if (level[i] >= 1 || next[i] < 1) continue;
      let passedOn = 0;
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
        passedOn += conductance[e] * Math.max(0, impulse[i] - impulse[columns[e]]);
      found[i] = passedOn / (passedOn + storage[i] * (1 - level[i]));
    }
  }

  /** The more a node gives for what it holds, the less far it is moved towards what was found. */
  function ease(step: number) {
    for (let i = 0; i < nodeCount; i++) {
      const part = 1 / (1 + (EASE * step * givenBy(i)) / storage[i]);
      for (const at of [i, nodeCount + i]) found[at] = state[at] + part * (found[at] - state[at]);
    }
  }

  /**
   * Lets a node that has given too much give less of its weight.
   * @returns whether none has; what gas shut in presses out of a node beyond what it holds is not its weight's doing
   */
  function keepWithin({ next, step }: SolvedStep): boolean {
    let isWithin = true;
    for (let i = 0; i < nodeCount; i++) {
      if (next[i] >= 0) continue;
      const given = step * givenBy(i, state);
      if (!(given > 0)) continue;
      share[i] *= Math.max(0, 1 + (next[i] * storage[i]) / given);
      isWithin &&= next[i] >= -OVERDRAWN;
    }
    return isWithin;
  }

  return {
    flow,
    start(level) {
      rounds = 0;
      point.start();
      share.fill(1);
      for (let i = 0; i < nodeCount; i++) {
        state[i] = level[i] < 1 ? 0 : 1;
        state[nodeCount + i] = clamp(level[i]);
      }
      addUp(state, flow);
    },
    settle(solved) {
      const { inflow, step } = solved;
      rounds += 1;
      const isWithin = keepWithin(solved);
      readStep(solved);
      addUp(found, wanted);
      let [changed, moved] = [0, 0];
      for (let i = 0; i < nodeCount; i++) {
        changed += Math.abs(wanted[i] - flow[i]) * step;
        moved += Math.abs(inflow[i]) + Math.abs(flow[i]) * step;
      }
      if (changed <= SETTLED * moved && isWithin) return 'settled';
      ease(step);
      point.improve(state, found);
      for (let i = 0; i < state.length; i++) state[i] = clamp(state[i]);
      addUp(state, flow);
      return rounds < MOST_ROUNDS ? 'again' : 'tooLong';
    },
  };
}
