import type { Edge } from './mesh-paths.ts';
import { distance, isNear, nearestOnSegment, type Point } from './polygon.ts';

/**
 * Where a line ends the pressure bends sharply (as the root of the distance), which even elements show badly all over the
 * part. So the mesh is graded there: edges are halved again and again towards the end, and rings of points stand around it.
 */
const LEVELS = 3;
const RING_POINTS = 8;

/** Both ends of every open line of two points or more. */
export function lineEnds(lines: readonly (readonly Point[])[]): Point[] {
  return lines.flatMap((points) => {
    const [first, last] = [points[0], points[points.length - 1]];
    return points.length < 2 || distance(first, last) < 1e-9 ? [] : [first, last];
  });
}

/** Turn, rad, from which on a convex corner keeps the pressure smooth where a line ends in it. */
const CORNER = 0.6;

/** A line that ends in a corner of the part crosses the whole flow: nothing bends there. */
export function isAtCorner(p: Point, rings: readonly (readonly Point[])[]): boolean {
  return rings.some((ring) =>
    ring.some((corner, i) => {
      if (distance(p, corner) > 1e-9) return false;
      const [a, b] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
      const turn = Math.atan2(
        (corner.x - a.x) * (b.y - corner.y) - (corner.y - a.y) * (b.x - corner.x),
        (corner.x - a.x) * (b.x - corner.x) + (corner.y - a.y) * (b.y - corner.y),
      );
      return Math.abs(turn) > CORNER;
    }),
  );
}

/** Cuts the edges that start at an end at an eighth, a quarter and half of their length. */
export function gradeTowards(ends: readonly Point[], edges: readonly Edge[], points: Point[]): Edge[] {
  const isEnd = (p: Point) => ends.some((end) => distance(end, p) < 1e-9);
  // Edges shared by two paths must be cut alike.
  const known = new Map<string, number[]>();
  return edges.flatMap((edge) => {
    const { a, b, path } = edge;
    if (isEnd(points[a]) === isEnd(points[b])) return [edge];
    const [from, to] = isEnd(points[a]) ? [a, b] : [b, a];
    const key = `${from} ${to}`;
    const [p, q] = [points[from], points[to]];
    const inner =
      known.get(key) ??
      Array.from({ length: LEVELS }, (_, n) => {
        const s = 0.5 ** (LEVELS - n);
        return points.push({ x: p.x + s * (q.x - p.x), y: p.y + s * (q.y - p.y) }) - 1;
      });
    known.set(key, inner);
    const chain = [from, ...inner, to];
    return chain.slice(1).map((next, i) => ({ a: chain[i], b: next, path }));
  });
}

/** Adds rings of points around each end, at an eighth, a quarter and half of the edge length, clear of every edge. */
export function addRings(
  ends: readonly Point[],
  points: Point[],
  edges: readonly [number, number][],
  inside: (p: Point) => boolean,
  h: number,
): void {
  for (const end of ends) {
    const near = edges
      .map(([i, j]) => [points[i], points[j]] as const)
      .filter(([a, b]) => distance(end, nearestOnSegment(end, a, b)) < h);
    for (let level = 1; level <= LEVELS; level++)
      for (let k = 0; k < RING_POINTS; k++) {
        const radius = h * 0.5 ** level;
        const angle = ((k + (level % 2) / 2) * 2 * Math.PI) / RING_POINTS;
        const p = { x: end.x + radius * Math.cos(angle), y: end.y + radius * Math.sin(angle) };
        const clear = near.every(([a, b]) => distance(p, nearestOnSegment(p, a, b)) > 0.3 * radius);
        const apart = !points.some((q) => isNear(p, q, 0.35 * radius));
        if (inside(p) && clear && apart) points.push(p);
      }
  }
}
