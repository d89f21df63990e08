import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';
import type { Point } from './polygon.ts';

/**
 * Constrained Delaunay triangulation of points, with the given edges present.
 * @param points  n positions, m, distinct
 * @param edges   pairs of point indices that must be edges; they may meet only at points
 * @returns triangles, 3 indices each, counter-clockwise
 * Built on delaunator and constrainautor (exact predicates).
 */
export function constrainedDelaunay(
  points: readonly Point[],
  edges: readonly (readonly [number, number])[],
): Uint32Array {
  const coordinates = new Float64Array(points.length * 2);
  points.forEach((p, i) => {
    coordinates[2 * i] = p.x;
    coordinates[2 * i + 1] = p.y;
  });
  const delaunay = new Delaunator(coordinates);
  const constrained = new Constrainautor(delaunay);
  constrained.constrainAll(edges as [number, number][]);
  return counterClockwise(delaunay.triangles, points);
}

function counterClockwise(triangles: ArrayLike<number>, points: readonly Point[]): Uint32Array {
  const out = Uint32Array.from(triangles);
  for (let t = 0; t < out.length; t += 3) {
    const [a, b, c] = [points[out[t]], points[out[t + 1]], points[out[t + 2]]];
    if ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x) < 0) {
      const swap = out[t + 1];
      out[t + 1] = out[t + 2];
      out[t + 2] = swap;
    }
  }
  return out;
}
