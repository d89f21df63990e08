import { distance, isNear, nearestOnSegment, type Point } from './polygon.ts';

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
    const found = points.findIndex((q) => isNear(p, q, tolerance));
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
  addCrossings(raw, points, tolerance, indexOf);
  const segments = raw.flatMap((segment) => splitAtPoints(segment, points, tolerance));
  return { points, segments };
}

function addCrossings(
  segments: readonly { a: number; b: number }[],
  points: readonly Point[],
  tolerance: number,
  indexOf: (p: Point) => number,
) {
  const boxes = segments.map(({ a, b }) => boxAround(points[a], points[b], tolerance));
  segments.forEach((first, i) => {
    for (let j = i + 1; j < segments.length; j++) {
      if (!doBoxesMeet(boxes[i], boxes[j])) continue;
      const second = segments[j];
      const crossing = intersection(points[first.a], points[first.b], points[second.a], points[second.b]);
      if (crossing) indexOf(crossing);
    }
  });
}

const boxAround = (a: Point, b: Point, margin: number) => ({
  minX: Math.min(a.x, b.x) - margin,
  maxX: Math.max(a.x, b.x) + margin,
  minY: Math.min(a.y, b.y) - margin,
  maxY: Math.max(a.y, b.y) + margin,
});

type Box = ReturnType<typeof boxAround>;
const doBoxesMeet = (p: Box, q: Box) =>
  p.minX <= q.maxX && q.minX <= p.maxX && p.minY <= q.maxY && q.minY <= p.maxY;

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
  const box = boxAround(points[a], points[b], tolerance);
  points.forEach((p, index) => {
    if (index === a || index === b || p.x < box.minX || p.x > box.maxX || p.y < box.minY || p.y > box.maxY)
      return;
    if (distance(p, nearestOnSegment(p, points[a], points[b])) <= tolerance) on.push(index);
  });
  on.sort((i, j) => distance(points[a], points[i]) - distance(points[a], points[j]));
  const chain = [a, ...on, b];
  return chain.slice(1).map((end, i) => ({ a: chain[i], b: end, path }));
}
