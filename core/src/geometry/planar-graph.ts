import { distance, nearestOnSegment, type Point } from './polygon.ts';

/** Points with unique positions and straight segments that meet only at points. */
export interface PlanarGraph {
  readonly points: Point[];
  /** Pairs of point indices, with the index of the input path each came from. */
  readonly segments: { a: number; b: number; path: number }[];
}

interface Path {
  readonly points: readonly Point[];
  readonly closed: boolean;
}

/**
 * Splits paths wherever they cross, touch or overlap, and merges points closer than the tolerance.
 * @param paths     polylines or rings, m; a path of one point contributes that point only
 * @param tolerance m, > 0
 * @returns graph; segments on the same two points appear once per path
 * O(n^2) in the number of segments: meant for layouts of up to a few thousand.
 */
export function planarGraph(paths: readonly Path[], tolerance: number): PlanarGraph {
  const points: Point[] = [];
  const indexOf = (p: Point) => {
    const found = points.findIndex((q) => distance(p, q) <= tolerance);
    return found >= 0 ? found : points.push(p) - 1;
  };
  const raw: { a: number; b: number; path: number }[] = [];
  paths.forEach(({ points: line, closed }, path) => {
    const indices = line.map(indexOf);
    const count = closed ? line.length : line.length - 1;
    for (let i = 0; i < count; i++) {
      const a = indices[i];
      const b = indices[(i + 1) % line.length];
      if (a !== b) raw.push({ a, b, path });
    }
  });
  addCrossings(raw, points, indexOf);
  const segments = raw.flatMap((segment) => splitAtPoints(segment, points, tolerance));
  return { points, segments };
}

function addCrossings(
  segments: readonly { a: number; b: number }[],
  points: readonly Point[],
  indexOf: (p: Point) => number,
) {
  const count = segments.length;
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++) {
      const crossing = intersection(
        points[segments[i].a],
        points[segments[i].b],
        points[segments[j].a],
        points[segments[j].b],
      );
      if (crossing) indexOf(crossing);
    }
}

function intersection(a: Point, b: Point, c: Point, d: Point): Point | null {
  const rx = b.x - a.x;
  const ry = b.y - a.y;
  const sx = d.x - c.x;
  const sy = d.y - c.y;
  const cross = rx * sy - ry * sx;
  if (Math.abs(cross) < 1e-12 * Math.hypot(rx, ry) * Math.hypot(sx, sy)) return null;
  const t = ((c.x - a.x) * sy - (c.y - a.y) * sx) / cross;
  const u = ((c.x - a.x) * ry - (c.y - a.y) * rx) / cross;
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? { x: a.x + t * rx, y: a.y + t * ry } : null;
}

function splitAtPoints(
  segment: { a: number; b: number; path: number },
  points: readonly Point[],
  tolerance: number,
) {
  const { a, b, path } = segment;
  const on: number[] = [];
  points.forEach((p, index) => {
    if (index !== a && index !== b && distance(p, nearestOnSegment(p, points[a], points[b])) <= tolerance)
      on.push(index);
  });
  on.sort((i, j) => distance(points[a], points[i]) - distance(points[a], points[j]));
  const chain = [a, ...on, b];
  return chain.slice(1).map((end, i) => ({ a: chain[i], b: end, path }));
}
