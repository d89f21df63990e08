import { contains, nearestOnSegment, distance, type Point } from '../geometry/polygon.ts';

/** A part as layouts are fitted to it, m. */
export interface PartShape {
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
}

/** A direction across the part: "along" runs from 0 to length, "across" is measured from the part's middle line. */
export interface Frame {
  readonly length: number;
  readonly width: number;
  toPlan(along: number, across: number): Point;
  along(p: Point): number;
  across(p: Point): number;
}

/** The box that fits the part most closely: one frame along its longer side, one along its shorter. */
export function framesOf({ outline }: PartShape): { long: Frame; short: Frame } {
  let best = { angle: 0, area: Infinity };
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length];
    if (distance(a, b) < 1e-9) return;
    const angle = Math.atan2(b.y - a.y, b.x - a.x);
    const { length, width } = frameAt(outline, angle);
    if (length * width < best.area * (1 - 1e-9)) best = { angle, area: length * width };
  });
  const [one, other] = [frameAt(outline, best.angle), frameAt(outline, best.angle + Math.PI / 2)];
  return one.length >= other.length ? { long: one, short: other } : { long: other, short: one };
}

function frameAt(outline: readonly Point[], angle: number): Frame {
  // A direction and its opposite are the same: the one that points to the right, or straight up, is kept.
  const flip = Math.cos(angle) < -1e-9 || (Math.abs(Math.cos(angle)) <= 1e-9 && Math.sin(angle) < 0);
  const [c, s] = flip ? [-Math.cos(angle), -Math.sin(angle)] : [Math.cos(angle), Math.sin(angle)];
  const u = outline.map((p) => c * p.x + s * p.y);
  const v = outline.map((p) => c * p.y - s * p.x);
  const [u0, u1, v0, v1] = [Math.min(...u), Math.max(...u), Math.min(...v), Math.max(...v)];
  const middle = (v0 + v1) / 2;
  return {
    length: u1 - u0,
    width: v1 - v0,
    toPlan: (along, across) => {
      const [pu, pv] = [u0 + along, middle + across];
      return { x: c * pu - s * pv, y: s * pu + c * pv };
    },
    along: (p) => c * p.x + s * p.y - u0,
    across: (p) => c * p.y - s * p.x - middle,
  };
}

/** Pieces of the line across the part at a place along a frame, as spans of "across", the longest first. */
export function spansAcross({ outline, holes }: PartShape, frame: Frame, along: number): [number, number][] {
  const cuts: number[] = [];
  for (const ring of [outline, ...holes])
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const [ua, ub] = [frame.along(a) - along, frame.along(b) - along];
      if (ua > 0 !== ub > 0)
        cuts.push(frame.across(a) + (ua / (ua - ub)) * (frame.across(b) - frame.across(a)));
    });
  cuts.sort((a, b) => a - b);
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < cuts.length; i += 2) spans.push([cuts[i], cuts[i + 1]]);
  return spans.sort((a, b) => b[1] - b[0] - (a[1] - a[0]));
}

/** The place farthest from every edge, and how far that is; to a fiftieth of the part's width. */
export function middleOf(part: PartShape): { place: Point; room: number } {
  const { long } = framesOf(part);
  const step = long.width / 50;
  let best = { place: long.toPlan(long.length / 2, 0), room: -Infinity };
  const look = (along: number, across: number) => {
    const place = long.toPlan(along, across);
    const room = roomAt(part, place);
    if (room > best.room + 1e-12) best = { place, room };
  };
  const coarse = Math.max(long.length / 24, step);
  for (let a = coarse / 2; a < long.length; a += coarse)
    for (let b = -long.width / 2 + step; b < long.width / 2; b += long.width / 12) look(a, b);
  for (let size = coarse; size > step / 2; size /= 2) {
    const [a, b] = [long.along(best.place), long.across(best.place)];
    for (const da of [-size, 0, size]) for (const db of [-size, 0, size]) look(a + da, b + db);
  }
  return best;
}

/** Distance to the nearest edge; below 0 outside the part or in a hole. */
export function roomAt({ outline, holes }: PartShape, p: Point): number {
  let least = Infinity;
  for (const ring of [outline, ...holes])
    ring.forEach((a, i) => {
      least = Math.min(least, distance(p, nearestOnSegment(p, a, ring[(i + 1) % ring.length])));
    });
  return isInside({ outline, holes }, p) ? least : -least;
}

export const isInside = ({ outline, holes }: PartShape, p: Point): boolean =>
  contains(outline, p) && !holes.some((hole) => contains(hole, p));
