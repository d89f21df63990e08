import type { FlowNetwork } from '../src/flow/network.ts';

/**
 * The classical scheme, written here only to be timed against: pressures by a conjugate gradient with diagonal
 * preconditioning, then time runs until the next control volume is full, and again. One volume at a time.
 * Source: control-volume scheme as in Bruschke & Advani 1990 (Polymer Composites 11:398), from memory.
 * @returns arrival fluidity time of each node
 */
export function classicalFill(
  network: FlowNetwork,
  gates: { feed: Int32Array; vent: Int32Array },
  drop: number,
): Float64Array {
  const { nodeCount, rowStart, columns, conductance, storage } = network;
  const isFeed = new Uint8Array(nodeCount);
  const isVent = new Uint8Array(nodeCount);
  for (const i of gates.feed) isFeed[i] = 1;
  for (const i of gates.vent) isVent[i] = 1;
  const isFull = isFeed.slice();
  const level = new Float64Array(nodeCount);
  const arrival = new Float64Array(nodeCount).fill(NaN);
  for (const i of gates.feed) arrival[i] = 0;
  const diagonal = new Float64Array(nodeCount);
  for (let i = 0; i < nodeCount; i++)
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) diagonal[i] += conductance[e];
  const p = new Float64Array(nodeCount);
  for (const i of gates.feed) p[i] = drop;
  const [r, z, d, q] = [0, 1, 2, 3].map(() => new Float64Array(nodeCount));
  const isFree = (i: number) => isFull[i] && !isFeed[i] && !isVent[i];

  function solvePressure() {
    let rz = 0;
    let start = 0;
    for (let i = 0; i < nodeCount; i++) {
      if (!isFree(i)) continue;
      let sum = -diagonal[i] * p[i];
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) sum += conductance[e] * p[columns[e]];
      r[i] = sum;
      z[i] = sum / diagonal[i];
      d[i] = z[i];
      rz += sum * z[i];
      start = Math.max(start, diagonal[i] * drop);
    }
    const goal = (1e-7 * start) ** 2 / Math.max(...Array.from(gates.feed, (i) => diagonal[i]));
    for (let iteration = 0; rz > goal && iteration < 5000; iteration++) {
      let dq = 0;
      for (let i = 0; i < nodeCount; i++) {
        if (!isFree(i)) continue;
        let sum = diagonal[i] * d[i];
        for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
          if (isFree(columns[e])) sum -= conductance[e] * d[columns[e]];
        q[i] = sum;
        dq += d[i] * sum;
      }
      const alpha = rz / dq;
      let next = 0;
      for (let i = 0; i < nodeCount; i++) {
        if (!isFree(i)) continue;
        p[i] += alpha * d[i];
        r[i] -= alpha * q[i];
        z[i] = r[i] / diagonal[i];
        next += r[i] * z[i];
      }
      for (let i = 0; i < nodeCount; i++) if (isFree(i)) d[i] = z[i] + (next / rz) * d[i];
      rz = next;
    }
  }

  let time = 0;
  const flow = new Float64Array(nodeCount);
  for (;;) {
    solvePressure();
    let step = Infinity;
    for (let i = 0; i < nodeCount; i++) {
      if (isFull[i]) continue;
      flow[i] = 0;
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) flow[i] += conductance[e] * p[columns[e]];
      if (flow[i] > 0) step = Math.min(step, ((1 - level[i]) * storage[i]) / flow[i]);
    }
    if (step === Infinity) return arrival;
    time += step;
    for (let i = 0; i < nodeCount; i++) {
      if (isFull[i]) continue;
      const before = level[i];
      level[i] += (flow[i] * step) / storage[i];
      if (before < 0.5 && level[i] >= 0.5) arrival[i] = time;
      if (level[i] >= 1 - 1e-9) isFull[i] = 1;
    }
  }
}
