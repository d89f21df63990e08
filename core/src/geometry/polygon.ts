import { ModelError } from '../model-error.ts';

/** Plan coordinates, m. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Bounds {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** Area of a simple polygon, m2; positive when its corners run counter-clockwise (shoelace formula). */
export function signedArea(polygon: readonly Point[]): number {
  let twice = 0;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++)
    twice += polygon[j].x * polygon[i].y - polygon[i].x * polygon[j].y;
  return twice / 2;
}

export function perimeter(polygon: readonly Point[]): number {
  let sum = 0;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++)
    sum += distance(polygon[j], polygon[i]);
  return sum;
}

/** Length of an open line through its points, m. */
export function lineLength(line: readonly Point[]): number {
  let sum = 0;
  for (let i = 1; i < line.length; i++) sum += distance(line[i - 1], line[i]);
  return sum;
}

export function distance(a: Point, b: Point): number {
  return Math.hypot(b.x - a.x, b.y - a.y);
}

/** At most so far apart: most points are told from their box. */
export function isNear(a: Point, b: Point, reach: number): boolean {
  return Math.abs(b.x - a.x) <= reach && Math.abs(b.y - a.y) <= reach && distance(a, b) <= reach;
}

/** Even-odd test; points on the boundary may fall either way. */
export function contains(polygon: readonly Point[], p: Point): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const a = polygon[i];
    const b = polygon[j];
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/** Point of segment ab nearest to p. */
export function nearestOnSegment(p: Point, a: Point, b: Point): Point {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const lengthSq = dx * dx + dy * dy;
  const t = lengthSq > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / lengthSq)) : 0;
  return { x: a.x + t * dx, y: a.y + t * dy };
}

export function boundsOf(points: readonly Point[]): Bounds {
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const { x, y } of points) {
    minX = Math.min(minX, x);
    minY = Math.min(minY, y);
    maxX = Math.max(maxX, x);
    maxY = Math.max(maxY, y);
  }
  return { minX, minY, maxX, maxY };
}

/** True when the open segments ab and cd cross or touch in their interiors. */
export function segmentsCross(a: Point, b: Point, c: Point, d: Point): boolean {
  const d1 = sideOf(c, d, a);
  const d2 = sideOf(c, d, b);
  const d3 = sideOf(a, b, c);
  const d4 = sideOf(a, b, d);
  if (d1 * d2 < 0 && d3 * d4 < 0) return true;
  return (
    (d3 === 0 && isBetween(a, b, c)) ||
    (d4 === 0 && isBetween(a, b, d)) ||
    (d1 === 0 && isBetween(c, d, a)) ||
    (d2 === 0 && isBetween(c, d, b))
  );
}

/** 1 where r lies to the left of p to q, -1 to the right, 0 on it. */
const sideOf = (p: Point, q: Point, r: Point) =>
  Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));

/** Of a point on the line through p and q: whether it lies between them. */
const isBetween = (p: Point, q: Point, r: Point) => (r.x - p.x) * (r.x - q.x) + (r.y - p.y) * (r.y - q.y) < 0;

const MAX_SIZE = 100;
const MIN_SIZE = 0.01;
const MAX_CORNERS = 2000;

/**
 * Checks an outline or hole: finite corners, at least three, between 1 cm and 100 m across, not crossing itself.
 * @param polygon corners, m, either direction
 * @param name    how the user knows it: "The outline", "Hole 2"
 * @throws ModelError OUTLINE_TOO_FEW, OUTLINE_NOT_FINITE, OUTLINE_SIZE, OUTLINE_TOO_MANY, OUTLINE_CROSSES
 */
export function requireSimplePolygon(polygon: readonly Point[], name: string): void {
  const n = polygon.length;
  if (n < 3) throw new ModelError('OUTLINE_TOO_FEW', `${name} needs at least three corners, it has ${n}.`);
  if (n > MAX_CORNERS)
    throw new ModelError(
      'OUTLINE_TOO_MANY',
      `${name} has ${n} corners; ${MAX_CORNERS} is the limit. Simplify it first.`,
    );
  polygon.forEach(({ x, y }, i) => {
    if (!Number.isFinite(x) || !Number.isFinite(y))
      throw new ModelError(
        'OUTLINE_NOT_FINITE',
        `Corner ${i + 1} of ${name.toLowerCase()} is not a number. Type its position again.`,
      );
  });
  const box = boundsOf(polygon);
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  if (!(size >= MIN_SIZE && size <= MAX_SIZE))
    throw new ModelError(
      'OUTLINE_SIZE',
      `${name} is ${Number(size.toPrecision(3))} m across; parts from ${MIN_SIZE} m to ${MAX_SIZE} m can be computed. Check the unit it was typed in.`,
      { size },
    );
  const collinear = polygon.every(
    (p) => distance(p, nearestOnSegment(p, polygon[0], farthestFrom(polygon[0], polygon))) < 1e-4 * size,
  );
  if (collinear)
    throw new ModelError('OUTLINE_SIZE', `${name} encloses no area. Pull one of its corners out.`);
  const crossing = firstCrossing(polygon);
  if (crossing) {
    const [i, j] = crossing;
    throw new ModelError(
      'OUTLINE_CROSSES',
      `${name} crosses itself between edge ${i + 1} and edge ${j + 1}. Move one of their corners, or undo the last drag.`,
      { edges: [i, j] },
    );
  }
}

/**
 * Two edges that cross, lower index first; null where none do. Edges are taken in the order of their left ends, each against those
 * that still reach so far right.
 * Source: sweep and prune (Cohen et al. 1995). Checked by plan-geometry.test.ts against every pair.
 */
export function firstCrossing(polygon: readonly Point[]): [number, number] | null {
  const n = polygon.length;
  const ends = (i: number) => [polygon[i], polygon[(i + 1) % n]] as const;
  const [left, right, low, high] = [0, 1, 2, 3].map(() => new Float64Array(n));
  for (let i = 0; i < n; i++) {
    const [a, b] = ends(i);
    left[i] = Math.min(a.x, b.x);
    right[i] = Math.max(a.x, b.x);
    low[i] = Math.min(a.y, b.y);
    high[i] = Math.max(a.y, b.y);
  }
  const order = Array.from({ length: n }, (_, i) => i).sort((i, j) => left[i] - left[j]);
  let open: number[] = [];
  let found: [number, number] | null = null;
  for (const i of order) {
    open = open.filter((j) => right[j] >= left[i]);
    for (const j of open) {
      if (high[j] < low[i] || high[i] < low[j] || !segmentsCross(...ends(i), ...ends(j))) continue;
      const pair: [number, number] = i < j ? [i, j] : [j, i];
      // Of several the first along the outline, so that it is always the same one that is named.
      if (!found || pair[0] < found[0] || (pair[0] === found[0] && pair[1] < found[1])) found = pair;
    }
    open.push(i);
  }
  return found;
}

function farthestFrom(p: Point, polygon: readonly Point[]): Point {
  return polygon.reduce((far, q) => (distance(p, q) > distance(p, far) ? q : far));
}
