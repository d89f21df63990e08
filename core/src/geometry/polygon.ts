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
  const side = (p: Point, q: Point, r: Point) =>
    Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  const d1 = side(c, d, a);
  const d2 = side(c, d, b);
  const d3 = side(a, b, c);
  const d4 = side(a, b, d);
  if (d1 !== d2 && d3 !== d4 && d1 * d2 !== 0 && d3 * d4 !== 0) return true;
  const within = (p: Point, q: Point, r: Point) =>
    side(p, q, r) === 0 && (r.x - p.x) * (r.x - q.x) + (r.y - p.y) * (r.y - q.y) < 0;
  return within(a, b, c) || within(a, b, d) || within(c, d, a) || within(c, d, b);
}

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
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) {
      const [a, b, c, d] = [polygon[i], polygon[(i + 1) % n], polygon[j], polygon[(j + 1) % n]];
      if (segmentsCross(a, b, c, d))
        throw new ModelError(
          'OUTLINE_CROSSES',
          `${name} crosses itself between edge ${i + 1} and edge ${j + 1}. Move one of their corners, or undo the last drag.`,
          { edges: [i, j] },
        );
    }
}

function farthestFrom(p: Point, polygon: readonly Point[]): Point {
  return polygon.reduce((far, q) => (distance(p, q) > distance(p, far) ? q : far));
}
