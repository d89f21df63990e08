import type { FlowNetwork } from './network.ts';

/**
 * Multigrid preconditioner for the part of a flow network that is under pressure. Nodes are joined two by two along
 * their strongest branches, twice a level, so that each level has about a quarter of the nodes; coarse conductances are
 * sums of fine ones. The hierarchy is made once; when the set of active nodes changes only the sums are taken again.
 * Source: plain aggregation with over-correction, Braess 1995 (Computing 55:379).
 */
export interface Multigrid {
  /** Takes the sums for a new active set: 1 where the pressure is unknown, 0 where it is given. */
  update(active: Uint8Array): void;
  /** out = approximate inverse of the active matrix times residual; zero on inactive nodes. out must not alias residual. */
  apply(residual: Float64Array, out: Float64Array): void;
}

interface Level {
  readonly count: number;
  readonly rowStart: Int32Array;
  readonly columns: Int32Array;
  /** First entry of each row whose column is above the row. */
  readonly upperStart: Int32Array;
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
  /** Coarse node of each node, and coarse entry of each branch (-1 inside an aggregate); empty on the last level. */
  coarse: Int32Array;
  coarseEntry: Int32Array;
}

const COARSEST = 40;
const OVERCORRECTION = 1.6;
const COARSEST_SWEEPS = 4;

export function createMultigrid(network: FlowNetwork): Multigrid {
  const fullDiagonal = new Float64Array(network.nodeCount);
  for (let i = 0; i < network.nodeCount; i++)
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++)
      fullDiagonal[i] += network.conductance[e];
  const levels = [createLevel(network.rowStart, network.columns, network.conductance.slice())];
  for (let last = levels[0]; last.count > COARSEST; last = levels[levels.length - 1]) {
    const next = coarsen(last);
    if (next.count > 0.7 * last.count) break;
    levels.push(next);
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

  return { update, apply };
}

function createLevel(rowStart: Int32Array, columns: Int32Array, values: Float64Array): Level {
  const count = rowStart.length - 1;
  const upperStart = Int32Array.from({ length: count }, (_, i) => {
    let e = rowStart[i];
    while (e < rowStart[i + 1] && columns[e] < i) e += 1;
    return e;
  });
  return {
    count,
    rowStart,
    columns,
    upperStart,
    values,
    diagonal: new Float64Array(count),
    inverse: new Float64Array(count),
    active: new Uint8Array(count),
    list: new Int32Array(count),
    activeCount: 0,
    x: new Float64Array(count),
    b: new Float64Array(count),
    r: new Float64Array(count),
    coarse: new Int32Array(0),
    coarseEntry: new Int32Array(0),
  };
}

/** Two rounds of pairing along the strongest branch; sets the maps of the finer level. */
function coarsen(fine: Level): Level {
  const pairs = pairUp(fine.rowStart, fine.columns, fine.values);
  const half = collapse(fine, pairs.coarse, pairs.count);
  const again = pairUp(half.rowStart, half.columns, half.values);
  const coarse = pairs.coarse.map((c) => again.coarse[c]);
  const graph = collapse(fine, coarse, again.count);
  fine.coarse = coarse;
  fine.coarseEntry = graph.entry;
  return createLevel(graph.rowStart, graph.columns, graph.values);
}

function pairUp(rowStart: Int32Array, columns: Int32Array, values: Float64Array) {
  const n = rowStart.length - 1;
  const coarse = new Int32Array(n).fill(-1);
  let count = 0;
  for (let i = 0; i < n; i++) {
    if (coarse[i] >= 0) continue;
    let best = -1;
    let bestValue = 0;
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
      if (coarse[columns[e]] < 0 && columns[e] !== i && values[e] > bestValue)
        [best, bestValue] = [columns[e], values[e]];
    coarse[i] = count;
    if (best >= 0) coarse[best] = count;
    count += 1;
  }
  return { coarse, count };
}

/** Graph of the aggregates, and for each fine branch the coarse one it adds to. */
function collapse(
  fine: { rowStart: Int32Array; columns: Int32Array; values: Float64Array },
  coarse: Int32Array,
  count: number,
) {
  const { rowStart, columns, values } = fine;
  const members: number[][] = Array.from({ length: count }, () => []);
  coarse.forEach((c, i) => members[c].push(i));
  const entry = new Int32Array(columns.length).fill(-1);
  const outStart = new Int32Array(count + 1);
  const outColumns: number[] = [];
  const outValues: number[] = [];
  const place = new Int32Array(count).fill(-1);
  for (let c = 0; c < count; c++) {
    const start = outColumns.length;
    for (const i of members[c])
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
        const d = coarse[columns[e]];
        if (d === c) continue;
        if (place[d] < start) {
          place[d] = start;
          outColumns.push(d);
        }
      }
    const row = outColumns.splice(start).sort((p, q) => p - q);
    row.forEach((d) => {
      place[d] = outColumns.push(d) - 1;
      outValues.push(0);
    });
    for (const i of members[c])
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
        const d = coarse[columns[e]];
        if (d === c) continue;
        entry[e] = place[d];
        outValues[place[d]] += values[e];
      }
    outStart[c + 1] = outColumns.length;
  }
  return {
    rowStart: outStart,
    columns: Int32Array.from(outColumns),
    values: Float64Array.from(outValues),
    entry,
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
