import type { JobFeature } from '@wick/contract/job/job';
import { crossingsAlong, pointAlong } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { distance, lineLength, type Point } from '@wick/core/geometry/polygon';
import {
  developedLength,
  mouldLine,
  RIGHT_ANGLE,
  slopeExcess,
  type Climb,
  type MouldSection,
  type Piece,
} from '@wick/core/bag/section';
import { framesOf } from '@wick/core/layouts/frame';
import { ModelError } from '@wick/core/model-error';
import type { LaidJob } from '../job/laid.ts';
import { partShapeOf } from '../layout/fit.ts';

/** The part cut across somewhere, edge to edge, with what it climbs there. */
export interface BagSection extends MouldSection {
  readonly id: string;
  readonly name: string;
  readonly points: readonly Point[];
  /** What each of the climbs is. */
  readonly featureIds: readonly string[];
  /** Null where the rises on it do not fit, and then why; its length is taken without their roundings then, which is never too short. */
  readonly line: readonly Piece[] | null;
  readonly developed: number;
  readonly problem: string | null;
}

/** Along and across the part, across every rise, step and inside corner, and wherever somebody has drawn one. */
export function sectionsOf(job: LaidJob): BagSection[] {
  const outline = polygonOf(job.part.outline);
  const { long, short } = framesOf(partShapeOf(job));
  const drawn = job.part.sections.map(({ id, name, points }) => ({ id, name, points }));
  const across = job.part.features.map((feature) => ({
    id: `across-${feature.id}`,
    name: `Across ${feature.name}`,
    points: acrossOf(feature, outline),
  }));
  const whole = [
    { id: 'along', name: 'Along', frame: long },
    { id: 'across', name: 'Across', frame: short },
  ].map(({ id, name, frame }) => ({
    id,
    name,
    points: withinOutline(
      frame.toPlan(frame.length / 2, 0),
      direction(frame.toPlan(0, 0), frame.toPlan(1, 0)),
      outline,
    ),
  }));
  return [...whole, ...across, ...drawn]
    .filter(({ points }) => points.length > 1)
    .map((section) => cut(job, section));
}

function cut(
  { part }: LaidJob,
  { id, name, points }: { id: string; name: string; points: readonly Point[] },
): BagSection {
  const plan = lineLength(points);
  const crossed = part.features
    .flatMap((feature) => crossingsAlong(points, feature.points).map((at) => ({ feature, at })))
    .filter(({ feature }) => feature.height > 0)
    .sort((a, b) => a.at - b.at);
  const climbs = crossed.map(({ feature, at }) => climbOf(feature, at, plan));
  const own = {
    ...{ id, name, points, plan, climbs },
    featureIds: crossed.map(({ feature }) => feature.id),
  };
  try {
    const line = mouldLine({ plan, climbs });
    return { ...own, line, developed: developedLength(line), problem: null };
  } catch (error) {
    if (!(error instanceof ModelError)) throw error;
    return { ...own, line: null, developed: plan + withoutRoundings(climbs), problem: error.message };
  }
}

const withoutRoundings = (climbs: readonly Climb[]) =>
  climbs.reduce((sum, climb) => sum + slopeExcess(climb), 0);

/** Turned up towards the nearer end of the section: how the part is seen from the bag. The film it takes is the same either way. */
function climbOf({ height, radius, angle }: JobFeature, at: number, plan: number): Climb {
  const turn = angle ?? RIGHT_ANGLE;
  const isTowardsEnd = at > plan / 2;
  const run = height / Math.tan(turn);
  return {
    at: isTowardsEnd ? at : Math.max(0, at - run),
    height: isTowardsEnd ? height : -height,
    angle: turn,
    foot: isTowardsEnd ? radius : 0,
    top: isTowardsEnd ? 0 : radius,
  };
}

/** Straight across the middle of a feature, edge to edge. */
function acrossOf({ points }: JobFeature, outline: readonly Point[]): Point[] {
  const middle = pointAlong(points, 0.5);
  const along = direction(pointAlong(points, 0.45), pointAlong(points, 0.55));
  return withinOutline(middle, { x: -along.y, y: along.x }, outline);
}

/** The straight through a place that stays within the outline, from one edge to the other; empty where the place lies outside. */
function withinOutline(at: Point, way: Point, outline: readonly Point[]): Point[] {
  const FAR = 1e4;
  const edge = [...outline, outline[0]!];
  const reach = (sign: 1 | -1) =>
    crossingsAlong([at, { x: at.x + sign * FAR * way.x, y: at.y + sign * FAR * way.y }], edge)[0];
  const [forth, back] = [reach(1), reach(-1)];
  if (forth === undefined || back === undefined) return [];
  return [
    { x: at.x - back * way.x, y: at.y - back * way.y },
    { x: at.x + forth * way.x, y: at.y + forth * way.y },
  ];
}

function direction(a: Point, b: Point): Point {
  const length = distance(a, b);
  return length > 0 ? { x: (b.x - a.x) / length, y: (b.y - a.y) / length } : { x: 1, y: 0 };
}
