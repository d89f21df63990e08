import { straightened } from '../geometry/along.ts';
import { distance, lineLength, type Point } from '../geometry/polygon.ts';
import { framesOf, isInside, middleOf, roomAt, spansAcross, type Frame, type PartShape } from './frame.ts';

/** A line of a proposed layout. */
export interface LineDraft {
  readonly kind: 'feed' | 'vent';
  readonly points: readonly Point[];
  /** Feeds open at the start, or when the front has passed them. */
  readonly opens: 'start' | 'passed';
  /** Shares one hose with the others of its layout that say so. */
  readonly onTee: boolean;
}

export const templateNames = [
  'edgeToEdge',
  'centreRing',
  'parallel',
  'outward',
  'radial',
  'spine',
  'point',
] as const;
export type TemplateName = (typeof templateNames)[number];

export interface TemplateRequest {
  readonly template: TemplateName;
  /** Feed lines of a parallel layout, spokes of a radial one, ribs of a spine. */
  readonly count: number;
  /** Along the part's longer side, or its shorter. */
  readonly direction: 'long' | 'short';
  /** Starts from the other end. */
  readonly reversed: boolean;
  /** Distance that feeds keep from the edges, m. */
  readonly inset: number;
  /** Parallel feeds: all open at once, instead of each when the front has passed it. */
  readonly together?: boolean;
  /** Where along the direction the first and last feed stand, as shares of the length; null for the usual places. */
  readonly from?: number | null;
  readonly to?: number | null;
  /** A feed along the middle turned from the direction, rad, and shifted across it, as a share of the width: then it runs straight. */
  readonly tilt?: number;
  readonly shift?: number;
}

/** Feeds reach this share of the way to the edge where a ring of vents goes round. */
const REACH = 0.6;
/** The end of a part, as a share of its length, that a vent runs along. */
const END = 0.04;

/**
 * A layout from a template, fitted to a part: feeds cut to the part's width, vents along its edge. Empty where the part is too
 * narrow for it.
 * Common practice, no source. Checked by layouts.test.ts.
 */
export function fitTemplate(part: PartShape, request: TemplateRequest): LineDraft[] {
  const frames = framesOf(part);
  const frame = request.reversed ? turned(frames[request.direction]) : frames[request.direction];
  const ring = ringVent(part);
  switch (request.template) {
    case 'edgeToEdge': {
      const at = place(request.from, request.inset / frame.length);
      return complete([feed(across(part, frame, at, request.inset), 'start'), ...farVents(part, frame)]);
    }
    case 'parallel': {
      const count = Math.max(2, request.count);
      const from = place(request.from, request.inset / frame.length);
      const to = request.to ?? 1 - 0.75 / count;
      const feeds = Array.from({ length: count }, (_, i) =>
        feed(
          across(part, frame, from + (i * (to - from)) / (count - 1), request.inset),
          i === 0 || request.together ? 'start' : 'passed',
        ),
      );
      return complete([...feeds, ...farVents(part, frame)]);
    }
    case 'outward': {
      const count = 2 * Math.max(1, Math.floor(request.count / 2)) + 1;
      const half = (count - 1) / 2;
      const spread = (request.to ?? 1 - 0.5 / count) - 0.5;
      const middle = request.from ?? 0.5;
      const feeds = Array.from({ length: count }, (_, i) =>
        feed(
          across(part, frame, middle + ((i - half) / half) * spread * (half / (half + 0.5)), request.inset),
          i === half || request.together ? 'start' : 'passed',
        ),
      );
      return complete([...feeds, ...farVents(part, frame), ...farVents(part, turned(frame))]);
    }
    case 'centreRing':
      return complete([feed(along(part, frame, request), 'start'), ring]);
    case 'spine': {
      const spine = along(part, frame, request);
      const [start, end] = [frame.along(spine[0]), frame.along(spine[spine.length - 1])];
      const ribs = Array.from({ length: Math.max(1, request.count) }, (_, i) =>
        across(part, frame, (start + ((i + 0.5) * (end - start)) / request.count) / frame.length, 0),
      ).map((rib) => shortened(rib, REACH));
      return complete([feed(spine, 'start', true), ...ribs.map((rib) => feed(rib, 'start', true)), ring]);
    }
    case 'radial': {
      const { place: hub } = middleOf(part);
      const first = Math.atan2(
        frame.toPlan(1, 0).y - frame.toPlan(0, 0).y,
        frame.toPlan(1, 0).x - frame.toPlan(0, 0).x,
      );
      const spokes = Array.from({ length: Math.max(3, request.count) }, (_, k) =>
        spoke(part, hub, first + (2 * Math.PI * k) / Math.max(3, request.count)),
      );
      return complete([...spokes.map((points) => feed(points, 'start', true)), ring]);
    }
    case 'point':
      return complete([feed([middleOf(part).place], 'start'), ring]);
  }
}

const place = (share: number | null | undefined, usual: number) => share ?? Math.min(0.45, usual);

const feed = (points: readonly Point[], opens: LineDraft['opens'], onTee = false): LineDraft => ({
  kind: 'feed',
  points,
  opens,
  onTee,
});

/** A layout with a line that found no room is none. */
function complete(lines: LineDraft[]): LineDraft[] {
  const isThere = ({ points }: LineDraft) =>
    points.length === 1 || (points.length > 1 && lineLength(points) > 0.02);
  return lines.every(isThere) && lines.some(({ kind }) => kind === 'vent') ? lines : [];
}

/** Line across the part, clear of its edges; empty where the part is too narrow there. */
function across(part: PartShape, frame: Frame, share: number, inset: number): Point[] {
  const [widest] = spansAcross(part, frame, share * frame.length);
  if (!widest || widest[1] - widest[0] < 2 * inset + 0.03) return [];
  return [widest[0] + inset, widest[1] - inset].map((v) => frame.toPlan(share * frame.length, v));
}

/** Line along the part through the middle of its width, stopping short of both ends; it follows a bent part. */
function along(part: PartShape, frame: Frame, { from, to, tilt = 0, shift = 0 }: TemplateRequest): Point[] {
  const [start, end] = [from ?? (1 - REACH) / 2, to ?? (1 + REACH) / 2];
  if (tilt !== 0 || shift !== 0) return aslant(part, frame, { start, end, tilt, shift });
  const stations = 9;
  const points: Point[] = [];
  for (let i = 0; i < stations; i++) {
    const u = (start + (i * (end - start)) / (stations - 1)) * frame.length;
    const [widest] = spansAcross(part, frame, u);
    if (widest) points.push(frame.toPlan(u, (widest[0] + widest[1]) / 2));
  }
  return straightened(points, 0.01 * frame.width);
}

/** Straight line through the part at an angle, between two shares of its way from edge to edge. */
function aslant(
  part: PartShape,
  frame: Frame,
  { start, end, tilt, shift }: { start: number; end: number; tilt: number; shift: number },
): Point[] {
  const hub = frame.toPlan(frame.length / 2, shift * frame.width);
  const far = frame.toPlan(frame.length / 2 + Math.cos(tilt), shift * frame.width + Math.sin(tilt));
  const [dx, dy] = [far.x - hub.x, far.y - hub.y];
  const at = (r: number) => ({ x: hub.x + r * dx, y: hub.y + r * dy });
  if (!isInside(part, hub)) return [];
  const step = frame.width / 40;
  const reach = (sign: number) => {
    let r = 0;
    while (isInside(part, at(sign * (r + step)))) r += step;
    return sign * r;
  };
  const [back, on] = [reach(-1), reach(1)];
  return [at(back + start * (on - back)), at(back + end * (on - back))];
}

function spoke(part: PartShape, hub: Point, angle: number): Point[] {
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  const at = (r: number) => ({ x: hub.x + r * dx, y: hub.y + r * dy });
  const step = roomAt(part, hub) / 8;
  let reach = step;
  while (roomAt(part, at(reach + step)) > 0) reach += step;
  return [hub, at(REACH * reach)];
}

const shortened = (points: readonly Point[], share: number): Point[] => {
  if (points.length < 2) return [];
  const [a, b] = [points[0], points[points.length - 1]];
  const cut = (1 - share) / 2;
  const at = (s: number) => ({ x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) });
  return [at(cut), at(1 - cut)];
};

/** All round the edge. */
const ringVent = ({ outline }: PartShape): LineDraft => ({
  kind: 'vent',
  points: [...outline, outline[0]],
  opens: 'start',
  onTee: false,
});

/** The stretches of edge at the far end; with two tips, one on each. */
function farVents({ outline }: PartShape, frame: Frame): LineDraft[] {
  const isFar = (p: Point) => frame.along(p) > (1 - END) * frame.length;
  const ring = refined(outline, Math.max(END * frame.length, 0.01) / 4);
  const start = ring.findIndex((p) => !isFar(p));
  if (start < 0) return [];
  const stretches: Point[][] = [];
  for (let n = 0, open = false; n < ring.length; n++) {
    const p = ring[(start + n) % ring.length];
    if (!isFar(p)) open = false;
    else if (open) stretches[stretches.length - 1].push(p);
    else {
      stretches.push([p]);
      open = true;
    }
  }
  return stretches
    .map((points) => straightened(points, 1e-6))
    .filter((points) => lineLength(points) > 0.01)
    .map((points) => ({ kind: 'vent', points, opens: 'start', onTee: false }));
}

/** The same ring with no edge longer than a step. */
function refined(ring: readonly Point[], step: number): Point[] {
  return ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const count = Math.max(1, Math.ceil(distance(a, b) / step));
    return Array.from({ length: count }, (_, k) => ({
      x: a.x + (k / count) * (b.x - a.x),
      y: a.y + (k / count) * (b.y - a.y),
    }));
  });
}

/** The same direction walked from the other end. */
const turned = (frame: Frame): Frame => ({
  ...frame,
  toPlan: (a, b) => frame.toPlan(frame.length - a, -b),
  along: (p) => frame.length - frame.along(p),
  across: (p) => -frame.across(p),
});
