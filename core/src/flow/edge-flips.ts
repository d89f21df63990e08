import type { Mesh } from '../geometry/mesh.ts';
import type { SheetProperties } from './sheet.ts';

/** Minus the stiffness entry of nodes i and j in the triangle i, j, k: area * grad_i . T grad_j, sign turned. */
export function edgeConductance(
  positions: Float64Array,
  i: number,
  j: number,
  k: number,
  tensor: Float64Array,
  t: number,
): number {
  const ikx = positions[3 * i] - positions[3 * k];
  const iky = positions[3 * i + 1] - positions[3 * k + 1];
  const jkx = positions[3 * j] - positions[3 * k];
  const jky = positions[3 * j + 1] - positions[3 * k + 1];
  const twiceArea = Math.abs(ikx * jky - iky * jkx);
  // Gradients of the hat functions are the opposite edges turned by a right angle, over twice the area.
  const xx = tensor[3 * t];
  const yy = tensor[3 * t + 1];
  const xy = tensor[3 * t + 2];
  return (xx * iky * jky + yy * ikx * jkx - xy * (iky * jkx + ikx * jky)) / (2 * twiceArea);
}

const MAX_ROUNDS = 60;

/**
 * Lawson flips with the test "the conductance across this edge is negative", which is the Delaunay test in the metric of
 * the permeability. Edges between triangles of different properties stay.
 * @returns new triangles, stride 3, on the same nodes
 */
export function flipForPermeability(mesh: Mesh, sheet: SheetProperties): Uint32Array {
  const { positions } = mesh;
  const tensor = sheet.transmissibility;
  const triangles = mesh.triangles.slice();
  const sameSheet = (s: number, t: number) =>
    sheet.storage[s] === sheet.storage[t] && [0, 1, 2].every((k) => tensor[3 * s + k] === tensor[3 * t + k]);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const touched = new Uint8Array(triangles.length / 3);
    let flips = 0;
    for (const [e, other] of innerEdges(triangles, mesh.nodeCount)) {
      const t = Math.floor(e / 3);
      const s = Math.floor(other / 3);
      if (touched[s] || touched[t] || !sameSheet(s, t)) continue;
      const i = triangles[e];
      const j = triangles[3 * t + ((e + 1) % 3)];
      const k = triangles[3 * t + ((e + 2) % 3)];
      const l = triangles[3 * s + ((other + 2) % 3)];
      const across =
        edgeConductance(positions, i, j, k, tensor, t) + edgeConductance(positions, i, j, l, tensor, s);
      if (across >= -1e-9 * (tensor[3 * t] + tensor[3 * t + 1])) continue;
      if (!(turn(positions, i, l, k) > 0 && turn(positions, l, j, k) > 0)) continue;
      triangles.set([i, l, k], 3 * t);
      triangles.set([l, j, k], 3 * s);
      touched[s] = touched[t] = 1;
      flips += 1;
    }
    if (flips === 0) break;
  }
  return triangles;
}

/** Pairs of half-edges that two triangles share; a half-edge e runs from triangles[e] to the next corner. */
function innerEdges(triangles: Uint32Array, nodeCount: number): [number, number][] {
  const first = new Map<number, number>();
  const pairs: [number, number][] = [];
  for (let e = 0; e < triangles.length; e++) {
    const i = triangles[e];
    const j = triangles[e - (e % 3) + ((e + 1) % 3)];
    const key = i < j ? i * nodeCount + j : j * nodeCount + i;
    const other = first.get(key);
    if (other === undefined) first.set(key, e);
    else pairs.push([other, e]);
  }
  return pairs;
}

/** Twice the signed area of the triangle a, b, c. */
function turn(positions: Float64Array, a: number, b: number, c: number): number {
  return (
    (positions[3 * b] - positions[3 * a]) * (positions[3 * c + 1] - positions[3 * a + 1]) -
    (positions[3 * b + 1] - positions[3 * a + 1]) * (positions[3 * c] - positions[3 * a])
  );
}
