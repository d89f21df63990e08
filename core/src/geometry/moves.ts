import { bulgeThrough, edgeMiddle, reversed, withBulge, type Corner } from './arcs.ts';
import { distance, nearestOnSegment, type Point } from './polygon.ts';
import { intersect, type Patch, type Region } from './overlay.ts';

export function shifted<P extends Point>(points: readonly P[], by: Point): P[] {
  return points.map((p) => ({ ...p, x: p.x + by.x, y: p.y + by.y }));
}

/** Turned about a centre, rad, counter-clockwise. */
export function rotated<P extends Point>(points: readonly P[], angle: number, about: Point): P[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return points.map((p) => {
    const [dx, dy] = [p.x - about.x, p.y - about.y];
    return { ...p, x: about.x + c * dx - s * dy, y: about.y + s * dx + c * dy };
  });
}

/** Mirrored left to right about the line x = axis; rings keep their direction. */
export function mirroredRing(ring: readonly Corner[], axis: number): Corner[] {
  const flipped = ring.map((corner) =>
    withBulge({ x: 2 * axis - corner.x, y: corner.y }, -(corner.bulge ?? 0)),
  );
  return reversed(flipped);
}

/** An open line of points mirrored about x = axis, its order kept. */
export const mirroredLine = <P extends Point>(points: readonly P[], axis: number): P[] =>
  points.map((p) => ({ ...p, x: 2 * axis - p.x }));

/** Puts a corner into the edge that starts at index, in its middle; an arc stays the same arc in two halves. */
export function splitEdge(ring: readonly Corner[], index: number): Corner[] {
  const [a, b] = [ring[index], ring[(index + 1) % ring.length]];
  const middle = edgeMiddle(a, b);
  const half = a.bulge ? Math.tan(Math.atan(a.bulge) / 2) : 0;
  return [...ring.slice(0, index), withBulge(a, half), withBulge(middle, half), ...ring.slice(index + 1)];
}

/** Bends the edge that starts at index so that it passes a point. */
export function bendEdge(ring: readonly Corner[], index: number, through: Point): Corner[] {
  const [a, b] = [ring[index], ring[(index + 1) % ring.length]];
  // Nearer to the chord than a hundredth of it reads as straight: a hand cannot put it there.
  const off = distance(through, nearestOnSegment(through, a, b));
  const bulge = off < 0.01 * distance(a, b) ? 0 : bulgeThrough(a, b, through);
  return ring.map((corner, i) => (i === index ? withBulge(corner, bulge) : corner));
}

/**
 * Puts the end of an edge at a length and direction from its start, the other corners staying.
 * @param length m, > 0
 * @param angle  rad, from the plan's x axis, counter-clockwise
 */
export function aimEdge(
  ring: readonly Corner[],
  index: number,
  { length, angle }: { length: number; angle: number },
) {
  const end = (index + 1) % ring.length;
  const { x, y } = ring[index];
  const at = { x: x + length * Math.cos(angle), y: y + length * Math.sin(angle) };
  return ring.map((corner, i) => (i === end ? { ...corner, ...at } : corner));
}

/** Cuts a patch along the line through two points: what lies to its left, and to its right. */
export function splitAlong(patch: Patch, a: Point, b: Point): { left: Region; right: Region } {
  const length = distance(a, b) || 1;
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
  const FAR = 1e4;
  const at = (along: number, left: number): Point => ({
    x: a.x + along * ux - left * uy,
    y: a.y + along * uy + left * ux,
  });
  const side = (left: number): Region => [
    { outline: [at(-FAR, 0), at(FAR, 0), at(FAR, left), at(-FAR, left)], holes: [] },
  ];
  return { left: intersect([patch], side(FAR)), right: intersect([patch], side(-FAR)) };
}
