import { placeOf } from '@wick/core/geometry/mesh-places';
import type { Point } from '@wick/core/geometry/polygon';
import { DOUBTFUL } from '@wick/core/reforecast/factor';
import { drivenClock } from '@wick/core/reforecast/driven-clock';
import { deviationOf } from '@wick/core/reforecast/marks';
import { tellingMost } from '@wick/core/reforecast/next-mark';
import { lookAhead, weighShapes, type Ahead, type Weighing } from '@wick/core/reforecast/shapes';
import { scaledClock } from '@wick/core/resin/resin-clock';
import { halton, normalQuantile } from '@wick/core/verdict/sampling';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { Infusion, SeenFront } from './infusion.ts';
import type { LiveClock } from './live-clock.ts';
import { frontAt, type ShapeEvent, type SolvedShape } from './problem-shapes.ts';

/** s since first contact; nine in ten are later than early, and nine in ten earlier than late; Infinity past gel or for never. */
export interface Minutes {
  readonly early: number;
  readonly middle: number;
  readonly late: number;
}

export interface ReforecastRequest {
  /** The plan's own first; draws without their common factor. */
  readonly shapes: readonly SolvedShape[];
  readonly infusion: Pick<Infusion, 'seen' | 'turned' | 'allWetAt'>;
  readonly clock: LiveClock;
  /** Standard deviation of ln of the factor before any mark. */
  readonly prior: number;
  /** x/÷ of gel time. */
  readonly gelDoubt: number;
  /** s since first contact */
  readonly now: number;
}

export interface SeenMark extends SeenFront {
  /** s since first contact */
  readonly time: number;
  /** When it was expected by what the others say, s. */
  readonly expected: number;
  /** About 1 as it stands, towards 0 not at all. */
  readonly belief: number;
  readonly isDoubted: boolean;
}

export interface Reforecast {
  readonly now: number;
  readonly openTime: number;
  readonly gelTime: number;
  readonly last: Minutes;
  readonly lastPlace: Point;
  /** Before any mark: what the plan came to on this clock. */
  readonly planned: Minutes;
  /** That the last corner is wet before gel. */
  readonly chance: number;
  /** By which permeability over (porosity x viscosity) differs from the plan's, with the ends of its range. */
  readonly factor: Minutes;
  readonly marks: readonly SeenMark[];
  /** What may have happened, likeliest first. */
  readonly events: readonly { readonly event: ShapeEvent; readonly belief: number }[];
  /** Fewer than ten: the sampled parts hardly fit what was seen. */
  readonly effective: number;
  readonly nextMark: { readonly place: Point; readonly at: number; readonly settles: number } | null;
  readonly turns: readonly {
    readonly actionId: string;
    readonly lineId: string;
    readonly at: Minutes;
  }[];
  /** The shape believed most, and the factor on it: what is simulated on from here. */
  readonly likeliest: { readonly shape: SolvedShape; readonly factor: number };
}

/** Belief from which what may have happened counts as likely. */
export const LIKELY = 0.5;
/** s, one standard deviation, by which somebody is late with a tap. */
const TAP = 8;
/** Standard normal quantiles by which gel is earlier or later. */
const GELS = Array.from({ length: 15 }, (_, n) => normalQuantile(halton(n + 1, 2)));

/**
 * What the marks so far say of everything that is still to come. Only on one fluidity clock: where lines were turned otherwise than
 * planned the shapes have to be solved again as it went.
 * Errors none: a fill that was never seen is the plan's. Checked by reforecast.test.ts.
 */
export function reforecast(request: ReforecastRequest): Reforecast {
  const { shapes, clock, prior, now } = request;
  const { driven, run } = clock;
  const { allWetAt } = request.infusion;
  const wetAt = allWetAt === null ? null : (allWetAt - clock.zero) / 1000;
  const seen = request.infusion.seen
    .map((mark) => ({ ...mark, time: (mark.at - clock.zero) / 1000 }))
    .filter(({ time }) => time > run.openTime && driven.at(time) > 0);
  const weighing = weigh(request, seen, prior);
  const until = shapes.map((shape) =>
    Math.max(0, ...seen.map((mark) => frontAt(shape, mark)).filter(Number.isFinite)),
  );
  const lasts = shapes.map(({ last }) => last);
  const openNow = Math.max(0, driven.at(wetAt ?? now));
  const ahead = lookAhead(weighing, lasts, until, openNow);
  const before = lookAhead(
    weigh(request, [], prior),
    lasts,
    shapes.map(() => NaN),
  );
  const likeliest = likeliestOf(shapes, weighing, ahead.given, wetAt === null ? null : openNow);
  const spread = (at: (chance: number) => number): Minutes => ({
    early: driven.timeOf(at(0.1)),
    middle: driven.timeOf(at(0.5)),
    late: driven.timeOf(at(0.9)),
  });
  return {
    ...{ now, openTime: run.openTime, gelTime: clock.clock.gelTime },
    last: wetAt === null ? spread(ahead.at) : sure(wetAt),
    lastPlace: likeliest.shape.lastPlace,
    planned: spread(before.at),
    chance: wetAt === null ? chanceOf(request, ahead.by) : Number(wetAt < clock.clock.gelTime),
    factor: factorOf(weighing),
    marks: seen.map((mark, j) => ({
      ...mark,
      expected: driven.timeOf(
        lookAhead(
          weighing,
          shapes.map((shape) => frontAt(shape, mark)),
          until,
        ).at(0.5),
      ),
      belief: weighing.belief[j]!,
      isDoubted: weighing.belief[j]! < DOUBTFUL,
    })),
    events: weighing.events.map(({ event, belief }) => ({
      belief,
      event: shapes.find((shape) => shape.event && keyOf(shape.event) === event)!.event!,
    })),
    // One that was run again as it went stands for itself.
    effective: shapes.length > 1 ? weighing.effective : Infinity,
    nextMark: wetAt === null ? nextMarkOf(request, weighing, likeliest, openNow) : null,
    turns: turnsOf(request, (times) =>
      wetAt === null
        ? spread(lookAhead(weighing, times, until, openNow).at)
        : sure(driven.timeOf(times[shapes.indexOf(likeliest.shape)]! / likeliest.factor)),
    ),
    likeliest,
  };
}

const sure = (time: number): Minutes => ({ early: time, middle: time, late: time });
const keyOf = ({ kind, of }: ShapeEvent) => `${kind}:${of}`;

function weigh(
  { shapes, clock }: Pick<ReforecastRequest, 'shapes' | 'clock'>,
  seen: readonly (SeenFront & { readonly time: number })[],
  prior: number,
): Weighing {
  const { driven } = clock;
  const marks = seen.map((mark) => {
    const at = driven.at(mark.time);
    return {
      seen: at,
      deviation: deviationOf({
        slope: slopeAt(shapes[0]!, mark),
        place: mark.doubt,
        timeShare: TAP / (clock.clock.viscosityAt(mark.time) * at),
      }),
    };
  });
  return weighShapes(
    shapes.map((shape) => ({
      ...{ id: shape.id, event: shape.event && keyOf(shape.event), prior: shape.prior, last: shape.last },
      atMarks: seen.map((mark) => frontAt(shape, mark)),
    })),
    marks,
    prior,
  );
}

/** m over which the slope of a front's times is read. */
const SLOPE_REACH = 0.02;

/** Relative slope of the plan's times at a place, 1/m. */
function slopeAt(shape: Pick<SolvedShape, 'mesh' | 'front'>, { x, y }: Point): number {
  const at = frontAt(shape, { x, y });
  const along = (dx: number, dy: number) => {
    const [a, b] = [frontAt(shape, { x: x + dx, y: y + dy }), frontAt(shape, { x: x - dx, y: y - dy })];
    return (a - b) / (2 * SLOPE_REACH);
  };
  const slope = Math.hypot(along(SLOPE_REACH, 0), along(0, SLOPE_REACH)) / at;
  return Number.isFinite(slope) ? slope : 0;
}

function chanceOf({ clock, gelDoubt }: ReforecastRequest, by: (fluidity: number) => number): number {
  const { run, drive } = clock;
  const chances = GELS.map((z) => {
    const gelTime = gelDoubt ** (z / NINE_IN_TEN);
    const scaled = drivenClock(scaledClock(clock.clock, { viscosity: 1, gelTime }), run.openTime, drive);
    return by(scaled.at(scaled.gelTime));
  });
  return chances.reduce((sum, chance) => sum + chance / chances.length, 0);
}

function factorOf({ shapes }: Weighing): Minutes {
  const mean = shapes.reduce((sum, { weight, factor }) => sum + weight * factor.mean, 0);
  const variance = shapes.reduce(
    (sum, { weight, factor }) => sum + weight * (factor.deviation ** 2 + (factor.mean - mean) ** 2),
    0,
  );
  const half = NINE_IN_TEN * Math.sqrt(variance);
  return { early: Math.exp(mean - half), middle: Math.exp(mean), late: Math.exp(mean + half) };
}

/** ln of the factor by which a planned turn may come early or late and still be the plan's; s by which one at its very start may. */
const AS_PLANNED = 0.3;
const AT_ONCE = 60;

/**
 * Lines were turned otherwise than the plan has it, so that its shapes no longer tell the rest: what they come to has to be solved again.
 * @param factor on the plan, as the marks have it
 */
export function isOtherwise(
  plan: Pick<SolvedShape, 'turns'>,
  infusion: Pick<Infusion, 'turned' | 'openedAt'>,
  clock: LiveClock,
  factor: number,
): boolean {
  return infusion.turned.some(({ at, actionId }) => {
    if (infusion.openedAt === null || at - infusion.openedAt < AT_ONCE * 1000) return false;
    const planned =
      actionId === null ? undefined : plan.turns.find((turn) => turn.actionId === actionId)?.time;
    const came = factor * clock.driven.at((at - clock.zero) / 1000);
    return planned === undefined || !(Math.abs(Math.log(came / planned)) < AS_PLANNED);
  });
}

/** Of the way still ahead a mark is looked for up to this share. */
const WATCHED = 0.85;
const CANDIDATES = 40;

function nextMarkOf(
  { shapes, clock }: ReforecastRequest,
  weighing: Weighing,
  { shape, factor }: Reforecast['likeliest'],
  now: number,
): Reforecast['nextMark'] {
  const plan = shapes[0]!;
  const from = factor * now;
  const to =
    WATCHED * (shape.last < Infinity ? shape.last : Math.max(0, ...shape.front.filter(Number.isFinite)));
  const nodes = Array.from(plan.front.keys()).filter((i) => {
    const time = frontOf(shape, plan, i);
    return time > 1.05 * from && time < to;
  });
  const every = Math.max(1, Math.floor(nodes.length / CANDIDATES));
  const places = nodes.filter((_, n) => n % every === 0).map((i) => placeOf(plan.mesh, i));
  const found = tellingMost(
    weighing,
    shapes.map(({ last }) => last),
    places.map((place) => ({ place, times: shapes.map((one) => frontAt(one, place)) })),
  );
  const at = found ? clock.driven.timeOf(found.expected) : Infinity;
  return found && at < Infinity ? { place: found.place, at, settles: found.settles } : null;
}

const frontOf = (shape: SolvedShape, plan: SolvedShape, node: number) =>
  shape === plan ? plan.front[node]! : frontAt(shape, placeOf(plan.mesh, node));

/** @param wetAt fluidity time at which all of it was said to be wet; null before that */
function likeliestOf(
  shapes: readonly SolvedShape[],
  { shapes: weighed }: Weighing,
  given: Ahead['given'],
  wetAt: number | null,
): Reforecast['likeliest'] {
  if (wetAt !== null) {
    const best = weighed.reduce((most, one) => (one.weight > most.weight ? one : most));
    const shape = shapes[weighed.indexOf(best)]!;
    return { shape, factor: shape.last < Infinity ? shape.last / wetAt : Math.exp(best.factor.mean) };
  }
  const best = given.reduce((most, one) => (one.weight > most.weight ? one : most));
  return { shape: shapes[given.indexOf(best)]!, factor: Math.exp(best.factor) };
}

/** Turns of the plan that nobody has done yet. */
function turnsOf(
  { shapes, infusion }: ReforecastRequest,
  comes: (times: readonly number[]) => Minutes,
): Reforecast['turns'] {
  const done = new Set(infusion.turned.map(({ actionId }) => actionId));
  const open = new Map(
    shapes.flatMap(({ turns }) =>
      turns.flatMap(({ actionId, lineId }) => (done.has(actionId) ? [] : [[actionId, lineId] as const])),
    ),
  );
  return [...open]
    .map(([actionId, lineId]) => ({
      ...{ actionId, lineId },
      at: comes(
        shapes.map(({ turns }) => turns.find((turn) => turn.actionId === actionId)?.time ?? Infinity),
      ),
    }))
    .sort((a, b) => a.at.middle - b.at.middle);
}
