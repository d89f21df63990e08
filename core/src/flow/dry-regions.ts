import type { FlowNetwork } from './network.ts';

/** A group of joined nodes that still have room for resin and no way for their air to an open vent. */
export interface CutOffGroup {
  readonly nodes: Int32Array;
  /** Room left in them, m3. */
  readonly volume: number;
}

/**
 * Finds the dry groups that no open vent drains.
 * @param fill   0-1 a node
 * @param isVent 1 on nodes of open vents; air leaves through them even when resin has come
 * @returns largest first
 */
export function cutOffGroups(
  network: FlowNetwork,
  state: { fill: Float64Array; isVent: Uint8Array },
): CutOffGroup[] {
  const { fill, isVent } = state;
  const seen = new Uint8Array(network.nodeCount);
  for (let i = 0; i < network.nodeCount; i++)
    if (isVent[i] && !seen[i]) flood(network, fill, isVent, seen, i);
  const groups: CutOffGroup[] = [];
  for (let i = 0; i < network.nodeCount; i++) {
    if (seen[i] || fill[i] >= 1) continue;
    const nodes = flood(network, fill, isVent, seen, i);
    const volume = nodes.reduce((sum, node) => sum + network.storage[node] * (1 - fill[node]), 0);
    groups.push({ nodes: Int32Array.from(nodes), volume });
  }
  return groups.sort((a, b) => b.volume - a.volume);
}

function flood(
  network: FlowNetwork,
  fill: Float64Array,
  isVent: Uint8Array,
  seen: Uint8Array,
  start: number,
): number[] {
  const { rowStart, columns, conductance } = network;
  const found = [start];
  seen[start] = 1;
  for (let n = 0; n < found.length; n++) {
    const i = found[n];
    for (let e = rowStart[i]; e < rowStart[i + 1]; e++) {
      const j = columns[e];
      if (seen[j] || !(conductance[e] > 0) || (fill[j] >= 1 && !isVent[j])) continue;
      seen[j] = 1;
      found.push(j);
    }
  }
  return found;
}
