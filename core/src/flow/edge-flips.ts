import type { Mesh } from '../geometry/mesh.ts';
import type { SheetProperties } from './sheet.ts';

/**
 * Corners of a triangle in its own plane, whose first axis is the plan's x axis projected onto it (the y axis where x
 * stands on the plane): the frame in which a sheet's transmissibility is given, so fibre directions are projected.
 * @param out 6 values, x and y of the three corners relative to the first; overwritten, m
 * @returns area, m2
 */
export function cornersInPlane(
  positions: Float64Array,
  triangles: Uint32Array,
  t: number,
  out: Float64Array,
): number {
  const [a, b, c] = [3 * triangles[3 * t], 3 * triangles[3 * t + 1], 3 * triangles[3 * t + 2]];
  const [ux, uy, uz] = [
    positions[b] - positions[a],
    positions[b + 1] - positions[a + 1],
    positions[b + 2] - positions[a + 2],
  ];
  const [vx, vy, vz] = [
    positions[c] - positions[a],
    positions[c + 1] - positions[a + 1],
    positions[c + 2] - positions[a + 2],
  ];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const twice = Math.hypot(nx, ny, nz);
  const [mx, my, mz] = [nx / twice, ny / twice, nz / twice];
  const stands = Math.abs(mx) > 0.999;
  const along = stands ? my : mx;
  let [ex, ey, ez] = [(stands ? 0 : 1) - along * mx, (stands ? 1 : 0) - along * my, -along * mz];
  const length = Math.hypot(ex, ey, ez);
  [ex, ey, ez] = [ex / length, ey / length, ez / length];
  const [fx, fy, fz] = [my * ez - mz * ey, mz * ex - mx * ez, mx * ey - my * ex];
  out[0] = 0;
  out[1] = 0;
  out[2] = ux * ex + uy * ey + uz * ez;
  out[3] = ux * fx + uy * fy + uz * fz;
  out[4] = vx * ex + vy * ey + vz * ez;
  out[5] = vx * fx + vy * fy + vz * fz;
  return twice / 2;
}

/** Minus the stiffness entry of corners i and j of a triangle with corner k: area * grad_i . T grad_j, sign turned. */
export function edgeConductance(
  corners: Float64Array,
  i: number,
  j: number,
  k: number,
  tensor: Float64Array,
  t: number,
): number {
  const ikx = corners[2 * i] - corners[2 * k];
  const iky = corners[2 * i + 1] - corners[2 * k + 1];
  const jkx = corners[2 * j] - corners[2 * k];
  const jky = corners[2 * j + 1] - corners[2 * k + 1];
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
 * the permeability. Edges between triangles of different properties stay, and so do those where a shell is bent.
 * @returns new triangles, stride 3, on the same nodes
 */
export function flipForPermeability(
  mesh: Pick<Mesh, 'nodeCount' | 'positions' | 'triangles'>,
  sheet: SheetProperties,
): Uint32Array {
  const { positions } = mesh;
  const tensor = sheet.transmissibility;
  const triangles = mesh.triangles.slice();
  const own = new Float64Array(6);
  const others = new Float64Array(6);
  const sameSheet = (s: number, t: number) =>
    sheet.storage[s] === sheet.storage[t] &&
    tensor[3 * s] === tensor[3 * t] &&
    tensor[3 * s + 1] === tensor[3 * t + 1] &&
    tensor[3 * s + 2] === tensor[3 * t + 2];
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const touched = new Uint8Array(triangles.length / 3);
    let flips = 0;
    for (const [e, other] of innerEdges(triangles, mesh.nodeCount)) {
      const t = Math.floor(e / 3);
      const s = Math.floor(other / 3);
      if (touched[s] || touched[t] || !sameSheet(s, t)) continue;
      cornersInPlane(positions, triangles, t, own);
      cornersInPlane(positions, triangles, s, others);
      const [a, o] = [e % 3, other % 3];
      const across =
        edgeConductance(own, a, (a + 1) % 3, (a + 2) % 3, tensor, t) +
        edgeConductance(others, o, (o + 1) % 3, (o + 2) % 3, tensor, s);
      if (across >= -1e-9 * (tensor[3 * t] + tensor[3 * t + 1])) continue;
      const i = triangles[e];
      const j = triangles[3 * t + ((a + 1) % 3)];
      const k = triangles[3 * t + ((a + 2) % 3)];
      const l = triangles[3 * s + ((o + 2) % 3)];
      if (!isFlatConvex(positions, i, l, j, k)) continue;
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

/** The ring a, b, c, d lies in a plane (within a degree or so) and turns the same way at b and d. */
function isFlatConvex(positions: Float64Array, a: number, b: number, c: number, d: number): boolean {
  const [p, q, r] = [normal(positions, a, b, d), normal(positions, b, c, d), normal(positions, a, c, d)];
  const cosine = (u: number[], v: number[]) =>
    (u[0] * v[0] + u[1] * v[1] + u[2] * v[2]) / (Math.hypot(...u) * Math.hypot(...v));
  return cosine(p, q) > 0.9998 && cosine(p, r) > 0.9998;
}

function normal(positions: Float64Array, a: number, b: number, c: number): number[] {
  const [ux, uy, uz] = [0, 1, 2].map((k) => positions[3 * b + k] - positions[3 * a + k]);
  const [vx, vy, vz] = [0, 1, 2].map((k) => positions[3 * c + k] - positions[3 * a + k]);
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}
