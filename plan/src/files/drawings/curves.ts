import { withBulge, type Corner } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';

/** Share of a curve's own size that its chords may stand off. */
const RELATIVE_ERROR = 2e-5;
const MOST_CHORDS = 200;

/** Points of a cubic after its start, as chords. */
export function flattenCubic(a: Point, b: Point, c: Point, d: Point): Point[] {
  const bend = Math.max(
    Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y),
    Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y),
  );
  const size =
    Math.hypot(b.x - a.x, b.y - a.y) + Math.hypot(c.x - b.x, c.y - b.y) + Math.hypot(d.x - c.x, d.y - c.y);
  // Chord error of a cubic cut evenly in n: 6 bend / (8 n^2) at most.
  const count = Math.min(
    MOST_CHORDS,
    Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / (RELATIVE_ERROR * size || 1)))),
  );
  return Array.from({ length: count }, (_, i) => {
    const t = (i + 1) / count;
    const u = 1 - t;
    const mix = (p: number, q: number, r: number, s: number) =>
      u * u * u * p + 3 * u * u * t * q + 3 * u * t * t * r + t * t * t * s;
    return { x: mix(a.x, b.x, c.x, d.x), y: mix(a.y, b.y, c.y, d.y) };
  });
}

/**
 * Points on a B-spline by de Boor's recursion, ends included.
 * Source: de Boor, A Practical Guide to Splines, ch. X (from memory); checked by drawings.test.ts.
 */
export function flattenSpline(control: readonly Point[], knots: readonly number[], degree: number): Point[] {
  const [from, to] = [knots[degree]!, knots[control.length]!];
  const count = Math.min(MOST_CHORDS * 4, 24 * control.length);
  return Array.from({ length: count + 1 }, (_, i) => {
    const t = from + ((to - from) * i) / count;
    let span = degree;
    while (span < control.length - 1 && t >= knots[span + 1]!) span += 1;
    const points = control.slice(span - degree, span + 1).map(({ x, y }) => ({ x, y }));
    for (let r = 1; r <= degree; r++)
      for (let j = degree; j >= r; j--) {
        const low = knots[j + span - degree]!;
        const high = knots[j + 1 + span - r]!;
        const share = high > low ? (t - low) / (high - low) : 0;
        const [p, q] = [points[j - 1]!, points[j]!];
        points[j] = { x: p.x + share * (q.x - p.x), y: p.y + share * (q.y - p.y) };
      }
    return points[degree]!;
  });
}

/** Points along an ellipse by its centre, half axis vector and ratio of the other axis; parameters in rad. */
export function flattenEllipse(ellipse: {
  centre: Point;
  axis: Point;
  ratio: number;
  from: number;
  to: number;
}): Point[] {
  const { centre, axis, ratio, from } = ellipse;
  const to = from + turnOf(from, ellipse.to, 1e-9);
  const count = Math.max(8, Math.ceil(((to - from) / (2 * Math.PI)) * MOST_CHORDS) || 0);
  return Array.from({ length: count + 1 }, (_, i) => {
    const t = from + ((to - from) * i) / count;
    const [c, s] = [Math.cos(t), ratio * Math.sin(t)];
    return { x: centre.x + c * axis.x - s * axis.y, y: centre.y + c * axis.y + s * axis.x };
  });
}

/** How far it is counter-clockwise from one angle to another, rad: more than `least`, a full turn at most; NaN where it is none. */
function turnOf(from: number, to: number, least: number): number {
  const turn = (to - from) % (2 * Math.PI);
  if (Math.abs(turn) <= least) return 2 * Math.PI;
  return turn < 0 ? turn + 2 * Math.PI : turn;
}

/** Circular arc as two corners; angles in rad, counter-clockwise from one to the other. */
export function arcCorners(centre: Point, radius: number, from: number, to: number): Corner[] {
  const sweep = turnOf(from, to, 1e-12);
  const at = (angle: number) => ({
    x: centre.x + radius * Math.cos(angle),
    y: centre.y + radius * Math.sin(angle),
  });
  // In two halves, so that an arc of nearly a full turn stays well defined.
  const bulge = Math.tan(sweep / 8);
  return [withBulge(at(from), bulge), withBulge(at(from + sweep / 2), bulge), at(from + sweep)];
}
