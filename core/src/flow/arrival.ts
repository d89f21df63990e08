import type { FlowNetwork, Seam } from './network.ts';

/**
 * Times at which the front passes each node, read from the volumes of each step.
 *
 * Within a step resin comes into a node evenly from the moment the nodes before it are full, first for itself, then for
 * what lies beyond. So the moment at which its own volume is half full, when the front stands at the node, follows from
 * what it took and what it passed on; between laminates that store differently, the moment at which its part on the
 * resin's side is. Where nothing lies beyond a node the front has arrived only when it is full.
 * Between the ends of a step the front moves evenly in the root of time, as it does on a strip.
 */
export interface ArrivalTracker {
  /** Takes a step: fill fractions before and after it, and its impulse. The network's conductances are those of the step. */
  record(time: number, before: Float64Array, level: Float64Array, impulse: Float64Array): void;
  /** Marks nodes that hold resin from this time on (an opened feed). */
  markReached(nodes: ArrayLike<number>, time: number): void;
  /** Arrival time of each node; NaN where the front did not come. */
  finish(): Float64Array;
}

/** Fill fraction before a step below which the resin's coming is timed by the nodes before it. */
const TRACE = 1e-3;

/** @param startTime when the first step starts */
export function createArrivalTracker(network: FlowNetwork, startTime = 0): ArrivalTracker {
  const { nodeCount, rowStart, columns, conductance, storage } = network;
  const middle = new Float64Array(nodeCount).fill(NaN);
  const full = new Float64Array(nodeCount).fill(NaN);
  // All times in here are roots.
  let start = Math.sqrt(startTime);
  const seamAt = new Map(network.seams?.map((seam) => [seam.node, seam]));

  function record(at: number, before: Float64Array, level: Float64Array, impulse: Float64Array) {
    const end = Math.sqrt(at);
    const filling: number[] = [];
    for (let i = 0; i < nodeCount; i++) if (level[i] > before[i] && Number.isNaN(full[i])) filling.push(i);
    filling.sort((a, b) => impulse[b] - impulse[a]);
    for (const i of filling) {
      let [passedOn, came, cameAt] = [0, 0, 0];
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
        const j = columns[e];
        const flow = conductance[e] * (impulse[j] - impulse[i]);
        if (flow < 0) passedOn -= flow;
        else {
          came += flow;
          cameAt += flow * Math.max(start, full[j] <= end ? full[j] : start);
        }
      }
      const from = before[i] > TRACE || came === 0 ? start : cameAt / came;
      const total = storage[i] * (level[i] - before[i]) + passedOn;
      const timeAt = (fraction: number) =>
        from + (end - from) * Math.min(1, Math.max(0, (storage[i] * (fraction - before[i])) / total));
      if (Number.isNaN(middle[i])) {
        const seam = seamAt.get(i);
        const half = seam ? shareBefore(seam, impulse) : 0.5;
        if (level[i] >= half) middle[i] = timeAt(half);
      }
      if (level[i] >= 1) full[i] = timeAt(1);
    }
    start = end;
  }

  function markReached(nodes: ArrayLike<number>, at: number) {
    const time = Math.sqrt(at);
    for (let n = 0; n < nodes.length; n++) {
      const i = nodes[n];
      if (Number.isNaN(middle[i])) middle[i] = time;
      if (Number.isNaN(full[i])) full[i] = time;
    }
  }

  function finish(): Float64Array {
    const out = new Float64Array(nodeCount);
    for (let i = 0; i < nodeCount; i++) out[i] = (isLast(i) ? full[i] : middle[i]) ** 2;
    return out;
  }

  function isLast(i: number): boolean {
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
      const other = middle[columns[e]];
      if (conductance[e] > 0 && !(other <= middle[i])) return false;
    }
    return true;
  }

  return { record, markReached, finish };
}

/** Share of the way into a triangle, of the most, from which on its side is the one that the resin comes from. */
const UPSTREAM = 1 / 3;

/** Share of a node's volume that lies on the side that the resin comes from, if both sides were as large. */
function shareBefore({ node, neighbours, area, storage }: Seam, impulse: Float64Array): number {
  const rise = Array.from(
    area,
    (_, t) => impulse[neighbours[2 * t]] + impulse[neighbours[2 * t + 1]] - 2 * impulse[node],
  );
  const bound = UPSTREAM * Math.max(...rise);
  const mean = (isOn: (rise: number) => boolean) => {
    let [volume, sum] = [0, 0];
    rise.forEach((own, t) => {
      if (!isOn(own)) return;
      volume += area[t] * storage[t];
      sum += area[t];
    });
    return volume / sum;
  };
  const [before, beyond] = [mean((own) => own > bound), mean((own) => own <= bound)];
  // From all sides: onto an edge, or where fronts meet.
  return beyond > 0 ? before / (before + beyond) : 1;
}
