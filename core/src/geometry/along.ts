import { distance, lineLength, nearestOnSegment, type Point } from './polygon.ts';

/** Point at a share, 0-1, of a polyline's length. */
export function pointAlong(points: readonly Point[], share: number): Point {
  let left = share * lineLength(points);
  for (let i = 1; i < points.length; i++) {
    const length = distance(points[i - 1], points[i]);
    if (left <= length && length > 0) return between(points[i - 1], points[i], left / length);
    left -= length;
  }
  return points[points.length - 1];
}

/** Stretch of a polyline between two shares of its length, 0 <= from < to <= 1. */
export function stretchOf(points: readonly Point[], from: number, to: number): Point[] {
  const total = lineLength(points);
  let walked = 0;
  const inner = points.slice(1, -1).filter((p, i) => {
    walked += distance(points[i], p);
    return walked > from * total * (1 + 1e-12) && walked < to * total * (1 - 1e-12);
  });
  return [pointAlong(points, from), ...inner, pointAlong(points, to)];
}

/** Where on a polyline, or on its one point, a place is nearest to. */
export function nearestOnLine(at: Point, points: readonly Point[]): { point: Point; distance: number } {
  let best = points[0];
  for (let i = 1; i < points.length; i++) {
    const p = nearestOnSegment(at, points[i - 1], points[i]);
    if (distance(at, p) < distance(at, best)) best = p;
  }
  return { point: best, distance: distance(at, best) };
}

/** Least distance from a polyline's points and the middles of its segments to another one: enough to tell near from far. */
export function apart(a: readonly Point[], b: readonly Point[]): number {
  const sampled = (line: readonly Point[]) => [
    ...line,
    ...line.slice(1).map((p, i) => between(line[i], p, 0.5)),
  ];
  return Math.min(
    ...sampled(a).map((p) => nearestOnLine(p, b).distance),
    ...sampled(b).map((p) => nearestOnLine(p, a).distance),
  );
}

/** Where another polyline crosses one, m along it, ascending. Checked by plan-geometry.test.ts. */
export function crossingsAlong(path: readonly Point[], other: readonly Point[]): number[] {
  const found: number[] = [];
  let walked = 0;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const length = distance(a, b);
    for (let j = 1; j < other.length; j++) {
      const share = crossingShare(a, b, other[j - 1], other[j]);
      if (share !== null) found.push(walked + share * length);
    }
    walked += length;
  }
  // A crossing at a corner of either is one.
  return found.sort((p, q) => p - q).filter((at, n) => n === 0 || at - found[n - 1] > 1e-9);
}

/** Share of a-b at which c-d crosses it, or null. */
function crossingShare(a: Point, b: Point, c: Point, d: Point): number | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
  const turn = ux * vy - uy * vx;
  if (Math.abs(turn) < 1e-18) return null;
  const share = ((c.x - a.x) * vy - (c.y - a.y) * vx) / turn;
  const other = ((c.x - a.x) * uy - (c.y - a.y) * ux) / turn;
  return share >= 0 && share <= 1 && other >= 0 && other <= 1 ? share : null;
}

export const between = (a: Point, b: Point, share: number): Point => ({
  x: a.x + share * (b.x - a.x),
  y: a.y + share * (b.y - a.y),
});

/** The line without points that lie within a tolerance of the chord past them (Douglas & Peucker 1973). */
export function straightened(points: readonly Point[], tolerance: number): Point[] {
  if (points.length < 3) return [...points];
  const [a, b] = [points[0], points[points.length - 1]];
  const d = distance(a, b);
  let [far, most] = [0, -1];
  for (let i = 1; i < points.length - 1; i++) {
    const p = points[i];
    const off =
      d < 1e-12 ? distance(a, p) : Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / d;
    if (off > most) [far, most] = [i, off];
  }
  if (most <= tolerance) return [a, b];
  return [
    ...straightened(points.slice(0, far + 1), tolerance),
    ...straightened(points.slice(far), tolerance).slice(1),
  ];
}

/** The same for a ring, which keeps its first corner and the one farthest from it. */
export function straightenedRing(ring: readonly Point[], tolerance: number): Point[] {
  const far = ring.reduce(
    (best, p, i) => (distance(ring[0], p) > distance(ring[0], ring[best]) ? i : best),
    0,
  );
  const halves = [ring.slice(0, far + 1), [...ring.slice(far), ring[0]]];
  return halves.flatMap((half) => straightened(half, tolerance).slice(0, -1));
}
