import type { Mesh } from '../geometry/mesh.ts';
import { nodesWithin } from '../geometry/mesh-places.ts';
import type { ForecastRequest } from './layout.ts';

/** Under a vent nothing presses resin towards the mould, so that strip, m, fills last and hardly; it is not counted as the last corner. */
const VENT_STRIP = 0.02;

/**
 * 1 for mesh nodes that have to fill: not in a brake, not in a corner between vents, and, where layers are told apart, not
 * right under a vent.
 */
export function countedNodes(
  { zones, lines }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  layerCount: number,
  ventCorners: Int32Array,
): Uint8Array {
  const counted = Uint8Array.from({ length: mesh.nodeCount }, (_, i) =>
    zones[zoneOfNode[i]].isBrake ? 0 : 1,
  );
  if (layerCount > 1) {
    for (const { kind, points } of lines)
      if (kind === 'vent') for (const i of nodesWithin(mesh, points, VENT_STRIP)) counted[i] = 0;
  }
  for (const i of ventCorners) counted[i] = 0;
  return counted.some((flag) => flag === 1) ? counted : counted.fill(1);
}

/** The last of the counted nodes; a dry one is later than any. */
export function latestNode(arrival: Float64Array, counted: Uint8Array): number {
  let last = counted.indexOf(1);
  for (let i = last; i < arrival.length; i++)
    if (counted[i] && (arrival[i] > arrival[last] || Number.isNaN(arrival[i]))) last = i;
  return last;
}
