import type { FlowNetwork } from './network.ts';

export interface Gravity {
  /** Height of each node, m. */
  readonly elevation: Float64Array;
  /** Of the resin, kg/m3. */
  readonly density: number;
}

export const STANDARD_GRAVITY = 9.80665;

/**
 * Volume that weight drives into each node in a step: k rho g dz along every branch, from nodes as far as they hold resin
 * (upwind), so that dry laminate passes none and no node gives more than it has.
 * @param level fill fraction 0-1 a node
 * @param out   n values, m3 per unit of run time; overwritten
 * Source: weight term of the dam problem, Brezis, Kinderlehrer & Stampacchia 1978. Checked by effects.test.ts (upward fill).
 */
export function createWeight(network: FlowNetwork, { elevation, density }: Gravity) {
  const { nodeCount, rowStart, columns, conductance, storage } = network;
  const carries = new Float64Array(nodeCount);
  const weight = density * STANDARD_GRAVITY;
  return (level: Float64Array, step: number, out: Float64Array) => {
    for (let i = 0; i < nodeCount; i++) {
      carries[i] = Math.max(0, Math.min(1, level[i]));
      if (level[i] >= 1) continue;
      let down = 0;
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
        down += conductance[e] * Math.max(0, elevation[i] - elevation[columns[e]]);
      const most = (storage[i] * carries[i]) / (weight * down * step);
      if (most < carries[i]) carries[i] = most;
    }
    for (let i = 0; i < nodeCount; i++) {
      let sum = 0;
      for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
        const j = columns[e];
        const drop = elevation[j] - elevation[i];
        sum += conductance[e] * drop * (drop > 0 ? carries[j] : carries[i]);
      }
      out[i] = weight * sum;
    }
  };
}
