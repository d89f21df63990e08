import type { Mesh } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import { ModelError } from '../model-error.ts';

/** Factors on the permeability of what lies on the plan, on a grid of its places, row by row; straight between them, level outside. */
export interface Patchwork {
  readonly origin: Point;
  /** m, > 0 */
  readonly spacing: number;
  readonly columns: number;
  readonly rows: number;
  /** columns x rows, > 0; 1 leaves a place as it is. */
  readonly factor: readonly number[];
}

/**
 * By which each triangle takes resin better than its layers say, read at its middle.
 * @throws ModelError PATCHWORK_BAD when the grid has no spacing, or a factor is missing or not above zero
 * Checked by patchwork.test.ts.
 */
export function betterOn({ positions, triangles }: Mesh, patchwork: Patchwork): Float64Array {
  const { columns, rows, factor, spacing } = patchwork;
  if (!(spacing > 0 && columns * rows === factor.length && factor.every((f) => f > 0 && f < Infinity)))
    throw new ModelError(
      'PATCHWORK_BAD',
      'The differences from place to place are not whole: each has to be a factor above zero.',
      { spacing, columns, rows },
    );
  const middle = (t: number, k: number) =>
    (positions[3 * triangles[3 * t] + k] +
      positions[3 * triangles[3 * t + 1] + k] +
      positions[3 * triangles[3 * t + 2] + k]) /
    3;
  return Float64Array.from({ length: triangles.length / 3 }, (_, t) =>
    factorAt(patchwork, { x: middle(t, 0), y: middle(t, 1) }),
  );
}

function factorAt({ origin, spacing, columns, rows, factor }: Patchwork, { x, y }: Point): number {
  const [c, u] = cell((x - origin.x) / spacing, columns);
  const [r, v] = cell((y - origin.y) / spacing, rows);
  const at = (column: number, row: number) =>
    factor[Math.min(row, rows - 1) * columns + Math.min(column, columns - 1)];
  const along = (row: number) => (1 - u) * at(c, row) + u * at(c + 1, row);
  return (1 - v) * along(r) + v * along(r + 1);
}

/** The place before, and how far past it. */
function cell(at: number, count: number): [number, number] {
  const inside = Math.min(Math.max(at, 0), count - 1);
  const before = Math.floor(inside);
  return [before, inside - before];
}
