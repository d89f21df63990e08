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
