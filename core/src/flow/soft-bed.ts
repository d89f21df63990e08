import type { FlowNetwork } from './network.ts';
import { poreSlope, pressureForPores, readCurve, type Softness } from './softness.ts';

/**
 * The pores of a soft laminate during a run. Full nodes take resin as their pressure rises, dV = V0 c'(p) dp; the step is
 * linear about the pressure that fits the pores they have, so volumes balance exactly and the curve is followed.
 * Checked by fill.test.ts (settling against one-dimensional consolidation).
 */
export function createSoftBed(
  { nodeCount, storage }: FlowNetwork,
  softness: Softness | undefined,
  startPores?: Float64Array,
) {
  const pores = startPores?.slice() ?? new Float64Array(nodeCount).fill(1);
  const compliance = new Float64Array(nodeCount);
  const demand = new Float64Array(nodeCount);
  const curve = (i: number) => {
    const index = softness ? softness.curveOf[i] : -1;
    return index < 0 ? null : softness!.curves[index];
  };
  const flowAt = (i: number) => {
    const own = curve(i);
    return own ? readCurve(own.flow, own.spacing, pressureForPores(own, pores[i])) : 1;
  };
  const flow = startPores ? pores.map((_, i) => flowAt(i)) : new Float64Array(nodeCount).fill(1);
  return {
    isSoft: softness !== undefined,
    /** Pores and permeability of each node, relative to full compaction. */
    pores,
    flow,
    /** For the solver: volume a full node takes for a unit of impulse, and what it takes at none, m3. */
    compliance,
    demand,
    setStep(step: number) {
      if (!softness) return;
      for (let i = 0; i < nodeCount; i++) {
        const own = curve(i);
        if (!own) continue;
        const pressure = pressureForPores(own, pores[i]);
        const slope = storage[i] * poreSlope(own, pressure);
        compliance[i] = slope / step;
        demand[i] = -slope * pressure;
      }
    },
    /** Widens the pores by what full nodes have taken. @returns that volume, m3 */
    advance(
      level: Float64Array,
      next: Float64Array,
      inflow: Float64Array,
      weight: Float64Array | undefined,
      step: number,
      isGiven: Uint8Array,
    ): number {
      if (!softness) return 0;
      let grown = 0;
      for (let i = 0; i < nodeCount; i++) {
        const own = curve(i);
        if (!own || level[i] < 1 || next[i] < 1 || isGiven[i]) continue;
        const volume = inflow[i] + step * (weight?.[i] ?? 0);
        pores[i] = Math.max(1, pores[i] + volume / storage[i]);
        flow[i] = flowAt(i);
        grown += volume;
      }
      return grown;
    },
  };
}
