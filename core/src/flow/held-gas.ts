import type { FlowNetwork } from './network.ts';

/** What the gas of a step asks of the nodes it is in; as in ObstacleStep. */
export interface GasStep {
  readonly capacity: Float64Array;
  readonly compliance: Float64Array;
  readonly floor: Float64Array;
  readonly step: number;
}

/** Gas that the resin around it has pressed as far as it goes: each node keeps its share of it, at the pressure it comes to. */
export interface HeldGas {
  readonly nodes: Int32Array;
  /** Room at the start of the step, m3; gas, as pressure times room, J; pressure tried, Pa absolute. */
  readonly room: Float64Array;
  readonly content: Float64Array;
  readonly pressure: Float64Array;
}

/** Fill fraction by which the gas of a node may take more room than the node has. */
const OVERDRAWN = 0.03;

/** Shares gas out over the room that is left in some nodes. */
export function holdGas(
  { storage }: FlowNetwork,
  { nodes, level, content }: { nodes: Int32Array; level: Float64Array; content: number },
): HeldGas {
  const own = nodes.filter((i) => level[i] < 1);
  const room = Float64Array.from(own, (i) => storage[i] * (1 - level[i]));
  const whole = room.reduce((sum, volume) => sum + volume, 0);
  return {
    nodes: own,
    room,
    content: room.map((volume) => (content * volume) / whole),
    pressure: room.map(() => content / whole),
  };
}

/** Asks for what the room gives up as its pressure rises, in a straight line about the pressure tried. */
export function askOf({ nodes, room, content, pressure }: HeldGas, vacuum: number, asked: GasStep): void {
  nodes.forEach((i, n) => {
    const left = content[n] / pressure[n];
    asked.capacity[i] = room[n] - 2 * left + (left * vacuum) / pressure[n];
    asked.compliance[i] = left / (pressure[n] * asked.step);
    asked.floor[i] = 0;
  });
}

/** Takes the pressures of a solve up for the next. @returns largest share by which a room misses Boyle's law; Infinity where it does not hold the gas */
export function missOf(
  { storage }: FlowNetwork,
  { nodes, content, pressure }: HeldGas,
  solved: { level: Float64Array; impulse: Float64Array; step: number; vacuum: number },
): number {
  let [gas, whole, isBeyond] = [0, 0, false];
  nodes.forEach((i, n) => {
    pressure[n] = Math.max(0, solved.impulse[i] / solved.step) + solved.vacuum;
    isBeyond ||= !(solved.level[i] >= -OVERDRAWN);
    gas += pressure[n] * storage[i] * (1 - solved.level[i]);
    whole += content[n];
  });
  return isBeyond ? Infinity : Math.abs(gas / whole - 1);
}
