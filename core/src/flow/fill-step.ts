import type { GateBoard } from './gates.ts';
import type { FlowNetwork } from './network.ts';

/** Pressure expected in the next step: that of the last one carried on, and a trace where a node is about to be full. */
export function guessImpulse(state: {
  board: GateBoard;
  rate: Float64Array;
  rateBefore: Float64Array;
  filling: Float64Array;
  level: Float64Array;
  step: number;
  impulse: Float64Array;
  highest: number;
}) {
  const { board, rate, rateBefore, filling, level, step, impulse, highest } = state;
  for (let i = 0; i < rate.length; i++) {
    let expected = 0;
    if (board.isGiven[i]) expected = board.pressure[i];
    else if (rate[i] > 0)
      expected = rateBefore[i] > 0 ? Math.max(0.5 * rate[i], 2 * rate[i] - rateBefore[i]) : rate[i];
    else if (filling[i] * step > 0.7 * (1 - level[i])) expected = 1e-9 * highest;
    impulse[i] = expected * step;
  }
}

/** Adds the inflow of a step to the levels. @returns volume given by pots, kept, and lost into vents, m3 */
export function takeInflow(state: {
  board: GateBoard;
  level: Float64Array;
  next: Float64Array;
  storage: Float64Array;
  capacity: Float64Array;
  inflow: Float64Array;
  weight: Float64Array;
  step: number;
}): [number, number, number] {
  const { board, level, next, storage, capacity, inflow, weight, step } = state;
  let [given, kept, lost] = [0, 0, 0];
  for (let i = 0; i < level.length; i++) {
    next[i] = level[i];
    const volume = inflow[i] + step * weight[i];
    if (board.isFeed[i]) given -= volume;
    else if (board.isVent[i]) {
      const room = Math.min(volume, storage[i] * Math.max(0, 1 - level[i]));
      kept += room;
      lost += volume - room;
      next[i] = room < volume ? 1 : level[i] + volume / storage[i];
    } else {
      kept += volume;
      if (level[i] < 1) next[i] = inflow[i] >= capacity[i] ? 1 : level[i] + volume / storage[i];
      else if (inflow[i] < capacity[i] - 1e-12 * storage[i]) next[i] = drained(level[i], volume / storage[i]);
    }
  }
  return [given, kept, lost];
}

/** A full node whose pressure has gone down to the gas's own, and that gives out more than it takes, empties. */
const drained = (level: number, change: number) => (change < -1e-9 ? level + change : level);

/** Moves the state on by one step. @returns largest change of a pressure, Pa */
export function shift(state: {
  level: Float64Array;
  next: Float64Array;
  filling: Float64Array;
  impulse: Float64Array;
  rate: Float64Array;
  rateBefore: Float64Array;
  step: number;
}): number {
  const { level, next, filling, impulse, rate, rateBefore, step } = state;
  let moved = 0;
  for (let i = 0; i < level.length; i++) {
    filling[i] = next[i] < 1 ? (next[i] - level[i]) / step : 0;
    level[i] = next[i];
    rateBefore[i] = rate[i];
    rate[i] = impulse[i] / step;
    moved = Math.max(moved, Math.abs(rate[i] - rateBefore[i]));
  }
  return moved;
}

/** About the time in which the open feeds fill half of their neighbours. */
export function firstStep(network: FlowNetwork, board: GateBoard): number {
  let flow = 0;
  let volume = 0;
  const seen = new Uint8Array(network.nodeCount);
  for (let i = 0; i < network.nodeCount; i++) {
    if (!board.isFeed[i]) continue;
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++) {
      const j = network.columns[e];
      if (board.isFeed[j] || !(network.conductance[e] > 0)) continue;
      flow += network.conductance[e] * board.pressure[i];
      if (!seen[j]) volume += network.storage[j];
      seen[j] = 1;
    }
  }
  return (0.5 * volume) / flow;
}
