import { createHierarchy, type LevelGraph } from './hierarchy.ts';
import type { FlowNetwork } from './network.ts';

/**
 * Multigrid preconditioner for the part of a flow network that is under pressure. Nodes are joined two by two along
 * their strongest branches, twice a level, so that each level has about a quarter of the nodes; coarse conductances are
 * sums of fine ones. The hierarchy is made once; when the set of active nodes changes only the sums are taken again.
 * Source: plain aggregation with over-correction, Braess 1995 (Computing 55:379).
 */
export interface Multigrid {
  /** Takes another diagonal for the whole matrix than the sum of each node's conductances. */
  refresh(diagonal: Float64Array): void;
  /** Takes the sums for a new active set: 1 where the pressure is unknown, 0 where it is given. */
  update(active: Uint8Array): void;
  /** out = approximate inverse of the active matrix times residual; zero on inactive nodes. out must not alias residual. */
  apply(residual: Float64Array, out: Float64Array): void;
}

interface Level extends LevelGraph {
  readonly values: Float64Array;
  readonly diagonal: Float64Array;
  readonly inverse: Float64Array;
  readonly active: Uint8Array;
  /** Active nodes, the first activeCount entries. */
  readonly list: Int32Array;
  activeCount: number;
  readonly x: Float64Array;
  readonly b: Float64Array;
  readonly r: Float64Array;
}

const OVERCORRECTION = 1.6;
const COARSEST_SWEEPS = 4;

export function createMultigrid(network: FlowNetwork): Multigrid {
  const fullDiagonal = new Float64Array(network.nodeCount);
  const levels = createHierarchy(network).map((graph, l) =>
    createLevel(graph, l === 0 ? network.conductance : null),
  );

  for (let i = 0; i < network.nodeCount; i++)
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++)
      fullDiagonal[i] += network.conductance[e];

  function refresh(diagonal: Float64Array) {
    fullDiagonal.set(diagonal);
  }

  function update(active: Uint8Array) {
    const fine = levels[0];
    fine.active.set(active);
    fine.diagonal.set(fullDiagonal);
    // Inactive entries stay zero, so the sweeps need not ask.
    for (const level of levels) level.x.fill(0);
    listActive(fine);
    for (let l = 0; l + 1 < levels.length; l++) restrictMatrix(levels[l], levels[l + 1]);
  }

  function cycle(l: number) {
    const level = levels[l];
    const { list, activeCount, x } = level;
    for (let n = 0; n < activeCount; n++) x[list[n]] = 0;
    sweepForward(level);
    if (l === levels.length - 1) {
      sweepBackward(level);
      for (let s = 1; s < COARSEST_SWEEPS; s++) {
        sweepOnward(level);
        sweepBackward(level);
      }
      return;
    }
    residualAfterForward(level);
    correct(l, level, levels[l + 1]);
    if (l > 0) {
      residual(level);
      correct(l, level, levels[l + 1]);
    }
    sweepBackward(level);
  }

  function correct(l: number, level: Level, next: Level) {
    const { list, activeCount, x, r, coarse } = level;
    for (let n = 0; n < next.activeCount; n++) next.b[next.list[n]] = 0;
    for (let n = 0; n < activeCount; n++) next.b[coarse[list[n]]] += r[list[n]];
    cycle(l + 1);
    for (let n = 0; n < activeCount; n++) x[list[n]] += OVERCORRECTION * next.x[coarse[list[n]]];
  }

  function apply(residualIn: Float64Array, out: Float64Array) {
    const fine = levels[0];
    const { list, activeCount } = fine;
    for (let n = 0; n < activeCount; n++) fine.b[list[n]] = residualIn[list[n]];
    cycle(0);
    for (let n = 0; n < activeCount; n++) out[list[n]] = fine.x[list[n]];
  }

  return { refresh, update, apply };
}

function createLevel(graph: LevelGraph, values: Float64Array | null): Level {
  const { count, columns } = graph;
  return {
    ...graph,
    values: values ?? new Float64Array(columns.length),
    diagonal: new Float64Array(count),
    inverse: new Float64Array(count),
    active: new Uint8Array(count),
    list: new Int32Array(count),
    activeCount: 0,
    x: new Float64Array(count),
    b: new Float64Array(count),
    r: new Float64Array(count),
  };
}

function listActive(level: Level) {
  let n = 0;
  for (let i = 0; i < level.count; i++)
    if (level.active[i]) {
      level.list[n++] = i;
      level.inverse[i] = 1 / level.diagonal[i];
    }
  level.activeCount = n;
}

function restrictMatrix(fine: Level, next: Level) {
  next.values.fill(0);
  next.diagonal.fill(0);
  next.active.fill(0);
  const { list, activeCount, rowStart, columns, values, active, diagonal, coarse, coarseEntry } = fine;
  for (let n = 0; n < activeCount; n++) {
    const i = list[n];
    const c = coarse[i];
    next.active[c] = 1;
    let sum = diagonal[i];
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
      if (!active[columns[e]]) continue;
      const entry = coarseEntry[e];
      if (entry >= 0) next.values[entry] += values[e];
      else sum -= values[e];
    }
    next.diagonal[c] += sum;
  }
  listActive(next);
}

/** Gauss-Seidel upwards from a zero guess: only lower neighbours count, since columns are sorted. */
function sweepForward({ list, activeCount, rowStart, upperStart, columns, values, inverse, x, b }: Level) {
  for (let n = 0; n < activeCount; n++) {
    const i = list[n];
    let sum = b[i];
    for (let e = rowStart[i], end = upperStart[i]; e < end; e++) sum += values[e] * x[columns[e]];
    x[i] = sum * inverse[i];
  }
}

/** Gauss-Seidel upwards from the guess in x; with sweepBackward after it the pair is symmetric, as the gradient needs. */
function sweepOnward({ list, activeCount, rowStart, columns, values, inverse, x, b }: Level) {
  for (let n = 0; n < activeCount; n++) {
    const i = list[n];
    let sum = b[i];
    for (let e = rowStart[i], end = rowStart[i + 1]; e < end; e++) sum += values[e] * x[columns[e]];
    x[i] = sum * inverse[i];
  }
}

function sweepBackward({ list, activeCount, rowStart, columns, values, inverse, x, b }: Level) {
  for (let n = activeCount - 1; n >= 0; n--) {
    const i = list[n];
    let sum = b[i];
    for (let e = rowStart[i], end = rowStart[i + 1]; e < end; e++) sum += values[e] * x[columns[e]];
    x[i] = sum * inverse[i];
  }
}

/** Residual right after sweepForward: what the upper neighbours bring. */
function residualAfterForward({ list, activeCount, rowStart, upperStart, columns, values, x, r }: Level) {
  for (let n = 0; n < activeCount; n++) {
    const i = list[n];
    let sum = 0;
    for (let e = upperStart[i], end = rowStart[i + 1]; e < end; e++) sum += values[e] * x[columns[e]];
    r[i] = sum;
  }
}

function residual({ list, activeCount, rowStart, columns, values, diagonal, x, b, r }: Level) {
  for (let n = 0; n < activeCount; n++) {
    const i = list[n];
    let sum = b[i] - diagonal[i] * x[i];
    for (let e = rowStart[i], end = rowStart[i + 1]; e < end; e++) sum += values[e] * x[columns[e]];
    r[i] = sum;
  }
}
