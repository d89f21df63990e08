import { contains, distance, lineLength, type Point } from './polygon.ts';
import { stretchOf } from './along.ts';

/** A turn above this makes a corner between two sides. */
const CORNER = Math.PI / 6;

/** An outline cut at its corners, the longest sides first; each an open line that runs as the outline does. None on a smooth outline. */
export function sidesOf(outline: readonly Point[]): Point[][] {
  const n = outline.length;
  const isCorner = (i: number) => {
    const [a, b, c] = [outline[(i + n - 1) % n], outline[i], outline[(i + 1) % n]];
    const turn = Math.atan2(
      (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x),
      (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y),
    );
    return Math.abs(turn) > CORNER;
  };
  const corners = outline.map((_, i) => i).filter(isCorner);
  if (corners.length < 2) return [];
  const sides = corners.map((from, k) => {
    const to = corners[(k + 1) % corners.length];
    const count = (to - from + n) % n || n;
    return Array.from({ length: count + 1 }, (_, i) => outline[(from + i) % n]);
  });
  return sides.sort((a, b) => lineLength(b) - lineLength(a));
}

/**
 * A side drawn into the part by an offset, m: each corner by the mitre of its edges, the ends cut back by the offset so that
 * they stay clear of the neighbouring sides. Null where nothing of it is left inside.
 * @param side an open line of gentle turns, as sidesOf gives it
 * Checked by layouts.test.ts.
 */
export function sideAtOffset(
  outline: readonly Point[],
  side: readonly Point[],
  offset: number,
): Point[] | null {
  const length = lineLength(side);
  if (!(length > 2.5 * offset)) return null;
  const inward = normalInto(outline, side);
  const normals = side.slice(1).map((p, i) => inward(side[i], p));
  const shifted = side.map((p, i) => {
    const [before, after] = [normals[Math.max(0, i - 1)], normals[Math.min(normals.length - 1, i)]];
    const [x, y] = [before.x + after.x, before.y + after.y];
    const scale = (2 * offset) / (x * x + y * y);
    return { x: p.x + scale * x, y: p.y + scale * y };
  });
  const share = offset / length;
  const cut = share > 0 ? stretchOf(shifted, share, 1 - share) : shifted;
  return offset === 0 || cut.every((p) => contains(outline, p)) ? cut : null;
}

/** Unit normal of an edge that points into the outline. */
function normalInto(outline: readonly Point[], side: readonly Point[]) {
  let twice = 0;
  outline.forEach((b, i) => {
    const a = outline[(i + outline.length - 1) % outline.length];
    twice += a.x * b.y - b.x * a.y;
  });
  const follows = outline.findIndex((p) => distance(p, side[0]) < 1e-9);
  const next = outline[(follows + 1) % outline.length];
  const isForward = follows >= 0 && distance(next, side[1]) <= distance(outline.at(follows - 1)!, side[1]);
  const turn = twice > 0 === isForward ? 1 : -1;
  return (a: Point, b: Point): Point => {
    const d = distance(a, b) || 1;
    return { x: (-turn * (b.y - a.y)) / d, y: (turn * (b.x - a.x)) / d };
  };
}
