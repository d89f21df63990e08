import { boundsOf, distance, type Bounds, type Point } from './polygon.ts';

/**
 * Corner of a ring whose edge to the next corner may be an arc: bulge = tan(a quarter of the arc's angle), positive where
 * the arc turns left (counter-clockwise), none or 0 for a straight edge. +1 or -1 is a half circle.
 */
export interface Corner extends Point {
  readonly bulge?: number;
}

export interface Arc {
  readonly centre: Point;
  readonly radius: number;
  /** rad; angle of the first end seen from the centre, and how far the arc turns (positive left). */
  readonly start: number;
  readonly sweep: number;
}

/** Farther than this from straight an arc would pass through the neighbouring corners of any sensible ring. */
const MAX_BULGE = 20;
/** How far a chord may stand off its arc, m: well under what anybody cuts to. */
const CHORD_ERROR = 2e-4;
const MAX_TURN_PER_CHORD = Math.PI / 8;
/** Most points that the arcs of a ring are drawn with; sixteen a full circle are always taken. */
const MOST_CHORDS = 20_000;

/** Null for a straight edge. Source: geometry of the circle; sagitta = bulge x half the chord. Checked by plan-geometry.test.ts. */
export function arcOf(a: Corner, b: Point): Arc | null {
  const bulge = a.bulge ?? 0;
  const chord = distance(a, b);
  if (bulge === 0 || chord === 0) return null;
  const sweep = 4 * Math.atan(bulge);
  const radius = chord / (2 * Math.abs(Math.sin(sweep / 2)));
  // Signed distance from the chord's middle to the centre, to the left of a -> b.
  const off = (chord / 2) * ((1 - bulge * bulge) / (2 * bulge));
  const centre = {
    x: (a.x + b.x) / 2 - (off * (b.y - a.y)) / chord,
    y: (a.y + b.y) / 2 + (off * (b.x - a.x)) / chord,
  };
  return { centre, radius, start: Math.atan2(a.y - centre.y, a.x - centre.x), sweep };
}

function chordCount({ radius, sweep }: Arc, chordError: number): number {
  // acos of nearly 1 loses the last digits: its series does not.
  const share = chordError / radius;
  const finest = share < 1e-6 ? Math.sqrt(8 * share) : share < 1 ? 2 * Math.acos(1 - share) : Infinity;
  return Math.ceil(Math.abs(sweep) / Math.min(finest, MAX_TURN_PER_CHORD) - 1e-9);
}

/** Points along the edge from a to b, b left out. */
export function flattenEdge(a: Corner, b: Point, chordError = CHORD_ERROR): Point[] {
  const arc = arcOf(a, b);
  if (!arc) return [{ x: a.x, y: a.y }];
  const { centre, radius, start, sweep } = arc;
  const count = chordCount(arc, chordError);
  return Array.from({ length: count }, (_, i) => {
    if (i === 0) return { x: a.x, y: a.y };
    const angle = start + (sweep * i) / count;
    return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
  });
}

const flattened = new WeakMap<readonly Corner[], readonly Point[]>();

/**
 * Polygon of a ring, its arcs as chords that stand off by 0.2 mm at most. Rings are never changed in place, so the answer
 * for one is kept.
 */
export function polygonOf(ring: readonly Corner[]): readonly Point[] {
  if (!ring.some((corner) => corner.bulge)) return ring;
  const known = flattened.get(ring);
  if (known) return known;
  const error = chordErrorOf(ring);
  const made = ring.flatMap((corner, i) => flattenEdge(corner, ring[(i + 1) % ring.length], error));
  flattened.set(ring, made);
  return made;
}

/** Usually 0.2 mm; more for a ring that would come to more points than any part has, and is refused for it where it is checked. */
function chordErrorOf(ring: readonly Corner[]): number {
  const arcs = ring.flatMap((corner, i) => arcOf(corner, ring[(i + 1) % ring.length]) ?? []);
  const countAt = (error: number) => arcs.reduce((sum, arc) => sum + chordCount(arc, error), 0);
  let error = CHORD_ERROR;
  while (countAt(error) > MOST_CHORDS && error < 1e9) error *= 4;
  return error;
}

/** Area of a ring, m2, exact for its arcs; positive when it runs counter-clockwise. */
export function ringArea(ring: readonly Corner[]): number {
  let area = 0;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    area += (a.x * b.y - b.x * a.y) / 2;
    const arc = arcOf(a, b);
    if (arc) area += (arc.radius ** 2 * (arc.sweep - Math.sin(arc.sweep))) / 2;
  });
  return area;
}

/** m; arcs by their arc length. */
export function edgeLength(a: Corner, b: Point): number {
  const arc = arcOf(a, b);
  return arc ? arc.radius * Math.abs(arc.sweep) : distance(a, b);
}

export const ringLength = (ring: readonly Corner[]) =>
  ring.reduce((sum, corner, i) => sum + edgeLength(corner, ring[(i + 1) % ring.length]), 0);

/** Middle of an edge, on its arc where it has one. */
export function edgeMiddle(a: Corner, b: Point): Point {
  const arc = arcOf(a, b);
  if (!arc) return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const angle = arc.start + arc.sweep / 2;
  return {
    x: arc.centre.x + arc.radius * Math.cos(angle),
    y: arc.centre.y + arc.radius * Math.sin(angle),
  };
}

/** Bulge of the arc from a to b that passes p; 0 where p lies on the chord (to a hundred thousandth of it). */
export function bulgeThrough(a: Point, b: Point, p: Point): number {
  const [ux, uy, vx, vy] = [a.x - p.x, a.y - p.y, b.x - p.x, b.y - p.y];
  // The angle a-p-b on the circle is half the arc on the far side of the chord.
  const inscribed = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  const sweep = 2 * (Math.PI - Math.abs(inscribed));
  const bulge = Math.tan(sweep / 4) * Math.sign(-inscribed || 1);
  return Math.abs(bulge) < 1e-5 ? 0 : Math.max(-MAX_BULGE, Math.min(MAX_BULGE, bulge));
}

/** Bulge of the shorter arc of a radius over a chord; the radius is never less than half of it. */
export function bulgeOfRadius(chord: number, radius: number): number {
  return Math.tan(Math.asin(Math.min(1, chord / (2 * Math.abs(radius)))) / 2) * Math.sign(radius);
}

/** The same ring run the other way round. */
export function reversed(ring: readonly Corner[]): Corner[] {
  const n = ring.length;
  return ring.map((_, i) => withBulge(ring[n - 1 - i], -(ring[(2 * n - 2 - i) % n].bulge ?? 0)));
}

/** A corner that carries a bulge only where its edge is curved. */
export function withBulge({ x, y }: Point, bulge: number): Corner {
  return bulge === 0 ? { x, y } : { x, y, bulge };
}

/** Box around a ring, exact for its arcs: where one runs through its leftmost, lowest ... point, that counts. */
export function ringBounds(ring: readonly Corner[]): Bounds {
  const extremes = ring.flatMap((corner, i) => {
    const arc = arcOf(corner, ring[(i + 1) % ring.length]);
    if (!arc) return [];
    const { centre, radius, start, sweep } = arc;
    return [0, 1, 2, 3]
      .map((quarter) => (quarter * Math.PI) / 2)
      .filter((angle) => turnTo(angle, start, Math.sign(sweep)) <= Math.abs(sweep))
      .map((angle) => ({
        x: centre.x + radius * Math.cos(angle),
        y: centre.y + radius * Math.sin(angle),
      }));
  });
  return boundsOf([...ring, ...extremes]);
}

/** How far it is from one angle to another in the given direction, 0 to a full turn. */
function turnTo(angle: number, from: number, direction: number): number {
  const turn = (direction * (angle - from)) % (2 * Math.PI);
  return turn < 0 ? turn + 2 * Math.PI : turn;
}
