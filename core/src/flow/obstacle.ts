import { ModelError } from '../model-error.ts';
import { createMultigrid } from './aggregation-multigrid.ts';
import type { FlowNetwork } from './network.ts';

/** What one step asks. All arrays have one entry a node and stay the caller's. */
export interface ObstacleStep {
  /** What a node takes while it is under pressure, m3: the room left for resin at the start of the step, less other sources. */
  readonly capacity: Float64Array;
  /** 1 where the impulse is given (open feed, open vent), 0 elsewhere. */
  readonly isGiven: Uint8Array;
  /** Least impulse of each node: the pressure of the gas at the front over the step; 0 under plain vacuum. */
  readonly floor: Float64Array;
  /** Volume each node takes further for a unit of impulse, m3: pores that widen under pressure. 0 where they do not. */
  readonly compliance: Float64Array;
  /** In: impulse at given nodes and a first guess elsewhere. Out: the solution. Pa s / (Pa s) = fluidity time x pressure. */
  readonly impulse: Float64Array;
  /** Sum of |volume error| that may remain, m3. */
  readonly tolerance: number;
}

export interface ObstacleSolver {
  /**
   * The conductances of the network are read afresh at every call, so the caller may change them between steps.
   * Solves  inflow_i = sum_j k_ij (U_j - U_i),  inflow_i <= capacity_i + c_i U_i,  U_i >= floor_i,
   * (U_i - floor_i) (capacity_i + c_i U_i - inflow_i) = 0  on every node whose impulse is not given.
   * @param inflow overwritten: volume that entered each node in the step, m3 (negative where a feed gives it out)
   * @returns number of linear solves and preconditioned iterations spent
   * @throws ModelError NOT_CONVERGED when the active set or the linear solve does not settle
   */
  solve(step: ObstacleStep, inflow: Float64Array): { solves: number; iterations: number };
}

const MAX_SETS = 400;
const MAX_ITERATIONS = 400;
/** While the active set still grows, the pressure need not be exact. */
const LOOSE = 0.03;

/** The nodes under pressure, and the pressure of these for what they must take. */
function createActiveSet(network: FlowNetwork) {
  const { nodeCount, rowStart, columns, conductance } = network;
  const multigrid = createMultigrid(network);
  const active = new Uint8Array(nodeCount);
  const list = new Int32Array(nodeCount);
  const r = new Float64Array(nodeCount);
  const z = new Float64Array(nodeCount);
  const p = new Float64Array(nodeCount);
  const q = new Float64Array(nodeCount);
  const diagonal = new Float64Array(nodeCount);
  let count = 0;

  function flowInto(i: number, u: Float64Array): number {
    let sum = 0;
    const own = u[i];
    for (let e = rowStart[i], end = rowStart[i + 1]; e < end; e++)
      sum += conductance[e] * (u[columns[e]] - own);
    return sum;
  }

  function set(isActive: (i: number) => boolean) {
    count = 0;
    for (let i = 0; i < nodeCount; i++) {
      active[i] = isActive(i) ? 1 : 0;
      if (active[i]) list[count++] = i;
    }
    p.fill(0);
    multigrid.update(active);
  }

  /** Takes up the conductances as they are now. */
  function refresh(compliance: Float64Array) {
    for (let i = 0; i < nodeCount; i++) {
      diagonal[i] = compliance[i];
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) diagonal[i] += conductance[e];
    }
    multigrid.refresh(diagonal);
  }

  /** Conjugate gradient on the active nodes; stops when the absolute errors sum below the tolerance. */
  function solve(
    { impulse: u, capacity, compliance }: ObstacleStep,
    tolerance: number,
    reduction: number,
  ): number {
    let error = 0;
    for (let n = 0; n < count; n++) {
      const i = list[n];
      r[i] = flowInto(i, u) - compliance[i] * u[i] - capacity[i];
      error += Math.abs(r[i]);
      p[i] = 0;
    }
    const goal = Math.max(tolerance, reduction * error);
    let rzOld = 0;
    let iterations = 0;
    // Written so that NaN goes on into the guard.
    while (!(error <= goal)) {
      if (++iterations > MAX_ITERATIONS || Number.isNaN(error)) throw pressureDidNotSettle();
      multigrid.apply(r, z);
      const rz = dot(list, count, r, z);
      const beta = iterations > 1 ? rz / rzOld : 0;
      for (let n = 0; n < count; n++) p[list[n]] = z[list[n]] + beta * p[list[n]];
      const pq = multiply(network, diagonal, list, count, p, q);
      error = step(list, count, rz / pq, p, q, u, r);
      rzOld = rz;
    }
    return iterations;
  }

  return { active, flowInto, set, refresh, solve };
}

/**
 * Primal-dual active set over a conjugate gradient. Because the matrix is an M-matrix the set only grows once the first
 * guess lies below the solution.
 * Source: Hintermueller, Ito & Kunisch 2002 (SIAM J. Optim. 13:865) for the active set. Checked by obstacle.test.ts.
 */
export function createObstacleSolver(network: FlowNetwork): ObstacleSolver {
  const { nodeCount } = network;
  const set = createActiveSet(network);
  const { active, flowInto } = set;

  /** Applies the complementarity test; true when no node changed sides. */
  function isSettled(step: ObstacleStep, slack: number): boolean {
    const { capacity, isGiven, floor, compliance, impulse } = step;
    const joins: number[] = [];
    const leaves: number[] = [];
    for (let i = 0; i < nodeCount; i++) {
      if (isGiven[i]) continue;
      if (active[i]) {
        if (impulse[i] < floor[i]) leaves.push(i);
      } else if (flowInto(i, impulse) - compliance[i] * impulse[i] > capacity[i] + slack) joins.push(i);
    }
    if (joins.length === 0 && leaves.length === 0) return true;
    for (const i of joins) active[i] = 1;
    for (const i of leaves) {
      active[i] = 0;
      impulse[i] = floor[i];
    }
    set.set((i) => active[i] === 1);
    return false;
  }

  function solve(step: ObstacleStep, inflow: Float64Array) {
    const { capacity, isGiven, floor, compliance, impulse, tolerance } = step;
    set.refresh(compliance);
    set.set((i) => !isGiven[i] && impulse[i] > floor[i]);
    for (let i = 0; i < nodeCount; i++) if (!isGiven[i] && !active[i]) impulse[i] = floor[i];
    let solves = 0;
    let iterations = 0;
    for (let exact = false; ;) {
      if (++solves > MAX_SETS) throw frontDidNotSettle();
      iterations += set.solve(step, tolerance, exact ? 0 : LOOSE);
      const settled = isSettled(step, tolerance / nodeCount);
      if (settled && exact) break;
      exact = settled;
    }
    for (let i = 0; i < nodeCount; i++)
      inflow[i] = active[i] ? capacity[i] + compliance[i] * impulse[i] : flowInto(i, impulse);
    return { solves, iterations };
  }

  return { solve };
}

/** q = matrix times p on the listed nodes, p zero elsewhere; returns p . q. */
function multiply(
  { rowStart, columns, conductance }: FlowNetwork,
  diagonal: Float64Array,
  list: Int32Array,
  count: number,
  p: Float64Array,
  q: Float64Array,
): number {
  let pq = 0;
  for (let n = 0; n < count; n++) {
    const i = list[n];
    let sum = diagonal[i] * p[i];
    for (let e = rowStart[i], end = rowStart[i + 1]; e < end; e++) sum -= conductance[e] * p[columns[e]];
    q[i] = sum;
    pq += p[i] * sum;
  }
  return pq;
}

/** u += alpha p, r -= alpha q; returns the sum of |r|. */
function step(
  list: Int32Array,
  count: number,
  alpha: number,
  p: Float64Array,
  q: Float64Array,
  u: Float64Array,
  r: Float64Array,
): number {
  let error = 0;
  for (let n = 0; n < count; n++) {
    const i = list[n];
    u[i] += alpha * p[i];
    r[i] -= alpha * q[i];
    error += Math.abs(r[i]);
  }
  return error;
}

function dot(list: Int32Array, count: number, a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let n = 0; n < count; n++) sum += a[list[n]] * b[list[n]];
  return sum;
}

export const pressureDidNotSettle = () =>
  new ModelError(
    'NOT_CONVERGED',
    'The flow equations did not settle. Check for extreme permeability contrasts.',
  );

export const frontDidNotSettle = () =>
  new ModelError(
    'NOT_CONVERGED',
    'The front did not settle within a step. Check for extreme permeability contrasts.',
  );
