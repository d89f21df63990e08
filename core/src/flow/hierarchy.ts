import type { FlowNetwork } from './network.ts';

/** The graph of one level of the multigrid: which node goes into which coarse one, and which branch into which. */
export interface LevelGraph {
  readonly count: number;
  readonly rowStart: Int32Array;
  readonly columns: Int32Array;
  /** First entry of each row whose column is above the row. */
  readonly upperStart: Int32Array;
  /** Coarse node of each node, and coarse entry of each branch (-1 inside an aggregate); empty on the last level. */
  readonly coarse: Int32Array;
  readonly coarseEntry: Int32Array;
}

const COARSEST = 40;
/** A node is not joined along a branch weaker than this share of its strongest: it waits for the one that its own neighbour joins. */
const STRONG = 0.1;
/** Share of its nodes that a level may keep so: where the waiting leaves more, all are joined; and where even that leaves more, it is the last. */
const ENOUGH = 0.4;
const STUCK = 0.7;

/**
 * Joins nodes two by two along their strongest branches, twice a level, until few are left. Made once for a network: it
 * stays right when conductances change later, only less well matched.
 */
export function createHierarchy(network: FlowNetwork): LevelGraph[] {
  const levels: LevelGraph[] = [];
  let graph: Graph = { rowStart: network.rowStart, columns: network.columns, values: network.conductance };
  while (graph.rowStart.length - 1 > COARSEST) {
    const count = graph.rowStart.length - 1;
    const strict = coarsen(graph, STRONG);
    const next = strict.count <= ENOUGH * count ? strict : coarsen(graph, 0);
    if (next.count > STUCK * count) break;
    levels.push(levelOf(graph, next.coarse, next.entry));
    graph = next;
  }
  levels.push(levelOf(graph, new Int32Array(0), new Int32Array(0)));
  return levels;
}

interface Graph {
  readonly rowStart: Int32Array;
  readonly columns: Int32Array;
  readonly values: Float64Array;
}

function levelOf({ rowStart, columns }: Graph, coarse: Int32Array, coarseEntry: Int32Array): LevelGraph {
  const count = rowStart.length - 1;
  const upperStart = Int32Array.from({ length: count }, (_, i) => {
    let e = rowStart[i];
    while (e < rowStart[i + 1] && columns[e] < i) e += 1;
    return e;
  });
  return { count, rowStart, columns, upperStart, coarse, coarseEntry };
}

/** Two rounds of pairing along the strongest branch, if that is at least so strong a share of all of its node's. */
function coarsen(fine: Graph, strong: number) {
  const pairs = pairUp(fine, strong);
  const half = collapse(fine, pairs.coarse, pairs.count);
  const again = pairUp(half, strong);
  const coarse = pairs.coarse.map((c) => again.coarse[c]);
  return { ...collapse(fine, coarse, again.count), coarse, count: again.count };
}

function pairUp({ rowStart, columns, values }: Graph, strong: number) {
  const n = rowStart.length - 1;
  const coarse = new Int32Array(n).fill(-1);
  let count = 0;
  for (let i = 0; i < n; i++) {
    if (coarse[i] >= 0) continue;
    let strongest = 0;
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) strongest = Math.max(strongest, values[e]);
    let best = -1;
    let bestValue = strong * strongest;
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
