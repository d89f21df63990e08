import { bulgeThrough, edgeMiddle, reversed, ringBounds, withBulge, type Corner } from './arcs.ts';
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

/** Four straight edges at right angles, to a hair. */
export function isRectangle(ring: readonly Corner[]): boolean {
  return (
    ring.length === 4 &&
    ring.every((b, i) => {
      const [a, c] = [ring[(i + 3) % 4], ring[(i + 1) % 4]];
      const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
      return !b.bulge && Math.abs(ux * vx + uy * vy) <= 1e-6 * Math.hypot(ux, uy) * Math.hypot(vx, vy);
    })
  );
}

/**
 * Gives an edge of a rectangle another length, and the opposite one with it.
 * @param length m, > 0
 */
export function stretchRectangle(ring: readonly Corner[], index: number, length: number): Corner[] {
  const [from, end, beyond] = [ring[index], ring[(index + 1) % 4], (index + 2) % 4];
  const share = length / distance(from, end) - 1;
  const by = { x: share * (end.x - from.x), y: share * (end.y - from.y) };
  return ring.map((p, i) =>
    i === (index + 1) % 4 || i === beyond ? { ...p, x: p.x + by.x, y: p.y + by.y } : p,
  );
}

const MOST_ROUNDS = 60;

/**
 * A ring with another over-all size along one axis of the plan, its lower and left side staying. Corners spread evenly and
 * arcs keep their angle; where that leaves the size as it is, as across a disc of two arcs, it grows in both directions.
 * @param size m, > 0
 */
export function sizedTo(ring: readonly Corner[], axis: 'x' | 'y', size: number): Corner[] {
  const extentOf = (corners: readonly Corner[]) => {
    const { minX, minY, maxX, maxY } = ringBounds(corners);
    return { x: maxX - minX, y: maxY - minY, minX, minY };
  };
  const start = extentOf(ring);
  let sized: Corner[] = ring.slice();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const { minX, minY, ...extent } = extentOf(sized);
    const factor = size / extent[axis];
    if (Math.abs(factor - 1) < 1e-7) break;
    const along = sized.map((p) =>
      axis === 'x' ? { ...p, x: minX + factor * (p.x - minX) } : { ...p, y: minY + factor * (p.y - minY) },
    );
    const isStuck = Math.abs(extentOf(along)[axis] / extent[axis] - 1) < 0.1 * Math.abs(factor - 1);
    sized = isStuck
      ? sized.map((p) => ({ ...p, x: minX + factor * (p.x - minX), y: minY + factor * (p.y - minY) }))
      : along;
  }
  const { minX, minY } = extentOf(sized);
  return shifted(sized, { x: start.minX - minX, y: start.minY - minY });
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
