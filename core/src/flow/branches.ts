import { branchEntries, type Gate, type GateBoard } from './gates.ts';
import type { FlowNetwork } from './network.ts';

/** Sets the working conductances: those of the network times valve, laminate and resin. */
export function createBranches(
  {
    network: base,
    gates,
    softness,
    resin,
  }: {
    readonly network: FlowNetwork;
    readonly gates: readonly Gate[];
    readonly softness?: unknown;
    readonly resin?: unknown;
  },
  working: FlowNetwork,
  board: GateBoard,
) {
  const valves = gates.map(({ supply }) => (supply ? branchEntries(base, supply.from, supply.junction) : []));
  const { rowStart, columns, conductance } = working;
  return {
    set(fluidity: Float64Array, flow: Float64Array) {
      if (softness || resin)
        for (let i = 0; i < working.nodeCount; i++)
          for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
            const j = columns[e];
            // Harmonic in the viscosity, as two half-branches in series.
            const thin = (2 * fluidity[i] * fluidity[j]) / (fluidity[i] + fluidity[j]);
            conductance[e] = base.conductance[e] * thin * 0.5 * (flow[i] + flow[j]);
          }
      valves.forEach((entries, gate) => {
        for (const e of entries)
          conductance[e] = (softness || resin ? conductance[e] : base.conductance[e]) * board.opening[gate];
      });
    },
  };
}
