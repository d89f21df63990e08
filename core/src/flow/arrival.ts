import type { FlowNetwork } from './network.ts';

/**
 * Times at which the front passes each node, read from the samples of a run.
 *
 * The front's distance past a node is followed by one measure g that is continuous in time: the fill fraction of the
 * node's own volume until it is full (g = 1/2 when the front stands at the node), then a half plus the root of the
 * pressure impulse, which grows with the square of the distance (a straight front on a strip: U = S d^2 / 2T).
 * Where nothing lies beyond a node the front has arrived only when the node is full (g = 1).
 */
export interface ArrivalTracker {
  /** Takes the state at the end of a step. fill 0-1 a node; impulse since the start, 1/Pa x Pa. */
  record(time: number, fill: Float64Array, impulse: Float64Array): void;
  /** Marks nodes that hold resin from this time on (an opened feed). */
  markReached(nodes: Int32Array, time: number): void;
  /** Arrival time of each node; NaN where the front did not come. */
  finish(): Float64Array;
}

const STARTED = 0.02;

export function createArrivalTracker({
  nodeCount,
  rowStart,
  columns,
  conductance,
  storage,
}: FlowNetwork): ArrivalTracker {
  const middle = new Float64Array(nodeCount).fill(NaN);
  const full = new Float64Array(nodeCount).fill(NaN);
  const before = new Float64Array(nodeCount);
  /** A crossing seen in a step that began before the front came near; settled with the next sample. */
  const pendingTime = new Float64Array(nodeCount).fill(NaN);
  const pendingStart = new Float64Array(nodeCount);
  const pendingMeasure = new Float64Array(nodeCount);
  const scale = new Float64Array(nodeCount);
  for (let i = 0; i < nodeCount; i++) {
    let diagonal = 0;
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) diagonal += conductance[e];
    scale[i] = diagonal / (2 * storage[i]);
  }
  // Between samples the front moves evenly in the root of time, as it does on a strip; all times here are roots.
  let lastTime = 0;

  function record(at: number, fill: Float64Array, impulse: Float64Array) {
    const time = Math.sqrt(at);
    for (let i = 0; i < nodeCount; i++) {
      if (!Number.isNaN(full[i])) continue;
      const g = fill[i] < 1 ? fill[i] : 0.5 + Math.sqrt(0.25 + impulse[i] * scale[i]);
      if (!Number.isNaN(pendingTime[i])) settlePending(i, time, g);
      else if (g >= 0.5 && before[i] < STARTED) {
        pendingTime[i] = time;
        pendingStart[i] = lastTime;
        pendingMeasure[i] = g;
      } else {
        if (g >= 0.5 && Number.isNaN(middle[i])) middle[i] = between(lastTime, before[i], time, g, 0.5);
        if (g >= 1) full[i] = between(lastTime, before[i], time, g, 1);
      }
      before[i] = g;
    }
    lastTime = time;
  }

  /** Runs the line through the two samples after the crossing back to the crossing. */
  function settlePending(i: number, time: number, g: number) {
    const [t1, g1] = [pendingTime[i], pendingMeasure[i]];
    const back = (level: number) => {
      const t = g > g1 ? t1 - ((time - t1) * (g1 - level)) / (g - g1) : t1;
      return Math.max(pendingStart[i], Math.min(t1, t));
    };
    middle[i] = back(0.5);
    if (g1 >= 1) full[i] = back(1);
    else if (g >= 1) full[i] = between(t1, g1, time, g, 1);
    pendingTime[i] = NaN;
  }

  function markReached(nodes: Int32Array, at: number) {
    const time = Math.sqrt(at);
    for (const i of nodes) {
      if (Number.isNaN(middle[i])) middle[i] = time;
      if (Number.isNaN(full[i])) full[i] = time;
    }
  }

  function finish(): Float64Array {
    for (let i = 0; i < nodeCount; i++) {
      if (Number.isNaN(pendingTime[i])) continue;
      middle[i] = between(pendingStart[i], 0, pendingTime[i], pendingMeasure[i], 0.5);
      if (pendingMeasure[i] >= 1) full[i] = between(pendingStart[i], 0, pendingTime[i], pendingMeasure[i], 1);
    }
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

function between(t0: number, g0: number, t1: number, g1: number, level: number): number {
  return g1 > g0 ? t0 + ((t1 - t0) * (level - g0)) / (g1 - g0) : t1;
}
