import type { Mesh } from '../geometry/mesh.ts';
import { nearestNode } from '../geometry/mesh-places.ts';
import type { Point } from '../geometry/polygon.ts';

/**
 * Value of a nodal field at a place, linear within the triangle that holds it.
 * @returns NaN outside the mesh or where a node of the triangle has no value
 */
export function valueAt({ triangles, positions }: Mesh, field: ArrayLike<number>, p: Point): number {
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t], triangles[t + 1], triangles[t + 2]];
    const [ax, ay] = [positions[3 * a], positions[3 * a + 1]];
    const [bx, by] = [positions[3 * b] - ax, positions[3 * b + 1] - ay];
    const [cx, cy] = [positions[3 * c] - ax, positions[3 * c + 1] - ay];
    const twice = bx * cy - by * cx;
    const u = ((p.x - ax) * cy - (p.y - ay) * cx) / twice;
    const v = (bx * (p.y - ay) - by * (p.x - ax)) / twice;
    if (u >= -1e-9 && v >= -1e-9 && u + v <= 1 + 1e-9)
      return field[a] * (1 - u - v) + field[b] * u + field[c] * v;
  }
  return NaN;
}

/** Between nodes; beside dry ones, that of the nearest. */
export function arrivalAt(mesh: Mesh, arrival: Float64Array, place: Point): number {
  const between = valueAt(mesh, arrival, place);
  return Number.isNaN(between) ? arrival[nearestNode(mesh, place)] : between;
}
