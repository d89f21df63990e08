import type { Mesh } from '../geometry/mesh.ts';
import { nearestNode } from '../geometry/mesh-places.ts';
import type { Point } from '../geometry/polygon.ts';

/** Triangles by the cells of a grid that they reach into. */
interface Locator {
  readonly minX: number;
  readonly minY: number;
  readonly cell: number;
  readonly columns: number;
  readonly cells: readonly (readonly number[])[];
}

/** A mesh is asked again and again: its grid is kept as long as it is. */
const known = new WeakMap<Mesh, Locator>();

function locatorOf(mesh: Mesh): Locator {
  let locator = known.get(mesh);
  if (!locator) known.set(mesh, (locator = createLocator(mesh)));
  return locator;
}

function createLocator({ triangles, positions, nodeCount }: Mesh): Locator {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < nodeCount; i++) {
    minX = Math.min(minX, positions[3 * i]);
    maxX = Math.max(maxX, positions[3 * i]);
    minY = Math.min(minY, positions[3 * i + 1]);
    maxY = Math.max(maxY, positions[3 * i + 1]);
  }
  const cell = Math.sqrt(((maxX - minX) * (maxY - minY)) / nodeCount) || 1;
  const columns = Math.floor((maxX - minX) / cell) + 1;
  const rows = Math.floor((maxY - minY) / cell) + 1;
  const cells = Array.from({ length: columns * rows }, (): number[] => []);
  for (let t = 0; t < triangles.length; t += 3) {
    const xs = [0, 1, 2].map((k) => (positions[3 * triangles[t + k]] - minX) / cell);
    const ys = [0, 1, 2].map((k) => (positions[3 * triangles[t + k] + 1] - minY) / cell);
    for (let r = Math.floor(Math.min(...ys)); r <= Math.max(...ys); r++)
      for (let c = Math.floor(Math.min(...xs)); c <= Math.max(...xs); c++) cells[r * columns + c].push(t);
  }
  return { minX, minY, cell, columns, cells };
}

/**
 * Value of a nodal field at a place, linear within the triangle that holds it.
 * @returns NaN outside the mesh or where a node of the triangle has no value
 */
export function valueAt(mesh: Mesh, field: ArrayLike<number>, p: Point): number {
  const { triangles, positions } = mesh;
  const { minX, minY, cell, columns, cells } = locatorOf(mesh);
  // A place on the rim may round to just outside of it.
  const column = Math.floor((p.x - minX) / cell + 1e-9);
  const row = Math.floor((p.y - minY) / cell + 1e-9);
  if (!(column >= 0 && column < columns)) return NaN;
  for (const t of cells[Math.max(0, row) * columns + column] ?? []) {
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
