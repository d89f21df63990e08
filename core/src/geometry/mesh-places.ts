import type { Mesh } from './mesh.ts';
import { areaOf } from './shell.ts';
import { distance, nearestOnSegment, type Point } from './polygon.ts';

export function placeOf({ positions }: Mesh, node: number): Point {
  return { x: positions[3 * node], y: positions[3 * node + 1] };
}

export function nearestNode(mesh: Mesh, place: Point): number {
  let best = 0;
  for (let i = 1; i < mesh.nodeCount; i++)
    if (distance(placeOf(mesh, i), place) < distance(placeOf(mesh, best), place)) best = i;
  return best;
}

export const allNodes = ({ nodeCount }: Mesh) => Int32Array.from({ length: nodeCount }, (_, i) => i);

/** Nodes within a reach of a polyline, or of a point, m. */
export function nodesWithin(mesh: Mesh, path: readonly Point[], reach: number): Int32Array {
  return allNodes(mesh).filter((i) => {
    const p = placeOf(mesh, i);
    return path.length === 1
      ? distance(p, path[0]) <= reach
      : path.slice(1).some((b, k) => distance(p, nearestOnSegment(p, path[k], b)) <= reach);
  });
}

/** Area of the part that is nearest to each mesh node, m2. */
export function nodeAreas({ positions, triangles, nodeCount }: Mesh): Float64Array {
  const areas = new Float64Array(nodeCount);
  for (let t = 0; t < triangles.length; t += 3) {
    const third = areaOf(positions, triangles.subarray(t, t + 3)) / 3;
    for (let k = 0; k < 3; k++) areas[triangles[t + k]] += third;
  }
  return areas;
}
