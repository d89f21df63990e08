import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';
import { boundsOf, type Point } from './polygon.ts';

/**
 * Constrained Delaunay triangulation of points, with the given edges present.
 * @param points  n positions, m, distinct
 * @param edges   pairs of point indices that must be edges; they may meet only at points
 * @returns triangles, 3 indices each, counter-clockwise; they cover at least what the edges enclose
 * Built on delaunator and constrainautor (exact predicates).
 */
export function constrainedDelaunay(
  points: readonly Point[],
  edges: readonly (readonly [number, number])[],
): Uint32Array {
  // Four points far outside keep the part's own edge off the hull, where points that are in line only up to rounding would
  // leave an edge outside of it.
  const all = [...points, ...farCorners(points)];
  const coordinates = new Float64Array(all.length * 2);
  all.forEach((p, i) => {
    coordinates[2 * i] = p.x;
    coordinates[2 * i + 1] = p.y;
  });
  const delaunay = new Delaunator(coordinates);
  const constrained = new Constrainautor(delaunay);
  constrained.constrainAll(edges as [number, number][]);
  return counterClockwise(withoutFar(delaunay.triangles, points.length), points);
}

function farCorners(points: readonly Point[]): Point[] {
  const { minX, minY, maxX, maxY } = boundsOf(points);
  const away = 2 * Math.max(maxX - minX, maxY - minY, 1e-9);
  return [
    { x: minX - away, y: minY - 1.1 * away },
    { x: maxX + 1.2 * away, y: minY - away },
    { x: maxX + away, y: maxY + 1.3 * away },
    { x: minX - 1.4 * away, y: maxY + away },
  ];
}

function withoutFar(triangles: ArrayLike<number>, pointCount: number): number[] {
  const kept: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [triangles[t], triangles[t + 1], triangles[t + 2]];
    if (corners.every((index) => index < pointCount)) kept.push(...corners);
  }
  return kept;
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
