import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { Patchwork } from '@wick/core/flow/patchwork';
import { solveFlow, type Fineness, type FlowProblem } from '@wick/core/flow/problem';
import type { Mesh } from '@wick/core/geometry/mesh';
import { arrivalAt } from '@wick/core/flow/probe';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { ROUGH, ROUGH_LAYERS } from '../forecast/assess.ts';
import { scatterOf } from '../forecast/doubt.ts';
import { problemOf, runsInLayers } from '../forecast/problem.ts';
import { drawJob, raceAlong, racingSides } from '../forecast/draw.ts';
import { ModelError } from '@wick/core/model-error';
import { createRandom } from '@wick/core/random';
import type { LaidJob } from '../job/laid.ts';
import { patchworkOver, patchy } from './patches.ts';

/** What may have happened to a fill, and where. */
export interface ShapeEvent {
  readonly kind: 'race' | 'blocked' | 'cold';
  /** Of the line that is blocked; otherwise the side or corner, numbered. */
  readonly of: string;
  /** Where it is, in words that somebody at the mould can follow. */
  readonly where: string;
  readonly places: readonly Point[];
}

/** One way in which the part may be, to be solved. */
export interface ShapeTask {
  readonly id: string;
  readonly event: ShapeEvent | null;
  readonly prior: number;
  readonly problem: FlowProblem;
  readonly fineness: Fineness;
}

/** What is kept of it. Times are fluidity times since the opening, 1/Pa; NaN where the front never comes. */
export interface SolvedShape {
  readonly id: string;
  readonly event: ShapeEvent | null;
  readonly prior: number;
  readonly mesh: Mesh;
  /** On the bag side, where it is seen, and through the whole thickness. */
  readonly front: Float64Array;
  readonly whole: Float64Array;
  /** Of the last corner; Infinity where a part stays dry. */
  readonly last: number;
  readonly lastPlace: Point;
  /** Planned turns, when each comes. */
  readonly turns: readonly {
    readonly actionId: string;
    readonly lineId: string;
    readonly time: number;
  }[];
  /** Volume out of the pots over time, m3. */
  readonly drawn: readonly { readonly time: number; readonly volume: number }[];
}

/** Sampled parts that only scatter. */
const DRAWS = 24;
/** A line that is nearly blocked, by its bore; and by which a cold or badly wetting corner takes resin worse. */
const BLOCKED_BORE = 0.35;
const COLD = 0.55;
/** Chances of each where nobody has entered one; common practice, no source. */
const RACE_CHANCE = 0.1;
const BLOCKED_CHANCE = 0.02;
const COLD_CHANCE = 0.03;

interface Maker extends Omit<ShapeTask, 'problem' | 'fineness'> {
  readonly make: () => FlowProblem;
}

/**
 * The plan as it stands, sampled parts that scatter, and parts in which one thing has happened.
 * @throws ModelError as problemOf
 */
export const shapeTasksOf = (job: LaidJob, shop: Shop, fineness = finenessFor(job)): ShapeTask[] =>
  makersOf(job, shop).map(({ make, ...task }) => ({ ...task, problem: make(), fineness }));

/** Which there are: the plan's own first, then events and mere scatter by turns, so that neither is late where they are solved in this order. */
export const shapeIdsOf = (job: LaidJob, shop: Shop): string[] => makersOf(job, shop).map(({ id }) => id);

/** One of them. @throws ModelError as problemOf; NO_SUCH_SHAPE */
export function shapeTaskOf(job: LaidJob, shop: Shop, shapeId: string, soft = false): ShapeTask {
  const maker = makersOf(job, shop, soft).find(({ id }) => id === shapeId);
  if (!maker)
    throw new ModelError('NO_SUCH_SHAPE', 'The plan of this run has changed. Look at its forecast again.', {
      shapeId,
    });
  const { make, ...task } = maker;
  return { ...task, problem: make(), fineness: finenessFor(job) };
}

/** @param soft the laminate gives, which takes several times as long  Errors as shapeTaskOf. */
export const problemOfShape = (job: LaidJob, shop: Shop, id: string, soft = false): FlowProblem =>
  shapeTaskOf(job, shop, id, soft).problem;

function makersOf(job: LaidJob, shop: Shop, soft = false): Maker[] {
  const posed = (own: LaidJob) => problemOf(own, shop, { soft });
  let known: FlowProblem | null = null;
  const base = () => (known ??= posed(job));
  const maker = (id: string, event: ShapeEvent | null, prior: number, make: () => FlowProblem): Maker => ({
    ...{ id, event, prior, make },
  });
  const draws = Array.from({ length: DRAWS }, (_, n) =>
    maker(`draw-${n}`, null, 1 / (DRAWS + 1), () => ({
      ...posed(quietly(drawJob(job, shop, n).drawn)),
      patchwork: patchy(job, createRandom(n)),
    })),
  );
  const events = [
    ...racesOf(job).map(({ event, prior, gap }) =>
      maker(`race-${event.of}-${gap}`, event, prior, () =>
        posed({ ...job, lines: [...job.lines, raceAlong(event.places, Number(event.of), gap)] }),
      ),
    ),
    ...job.lines
      .filter(({ kind }) => kind === 'feed')
      .map(({ id, name, points, bore }) =>
        maker(
          `blocked-${id}`,
          { kind: 'blocked', of: id, where: name, places: points },
          BLOCKED_CHANCE,
          () => ({
            ...base(),
            lines: base().lines.map((line) => (line.id === id ? narrowed(line, bore) : line)),
          }),
        ),
      ),
    ...cornersOf(job).map(({ event, patchwork }) =>
      maker(`cold-${event.of}`, event, COLD_CHANCE, () => ({ ...base(), patchwork })),
    ),
  ];
  const byTurns = Array.from({ length: Math.max(draws.length, events.length) }, (_, n) => [
    ...events.slice(n, n + 1),
    ...draws.slice(n, n + 1),
  ]);
  return [maker('plan', null, 1 / (DRAWS + 1), base), ...byTurns.flat()];
}

const finenessFor = (job: LaidJob): Fineness => {
  const { nodeCount, steps } = runsInLayers(job) ? ROUGH_LAYERS : ROUGH;
  return { nodeCount, steps };
};

/** A draw without what is tried by itself, or has a clock of its own. */
const quietly = (job: LaidJob): LaidJob => ({
  ...job,
  lines: job.lines.filter(({ id }) => !id.startsWith('race-drawn-')),
});

function narrowed(line: FlowProblem['lines'][number], bore: number): FlowProblem['lines'][number] {
  return {
    ...line,
    bore: BLOCKED_BORE * bore,
    hose: line.hose ? { ...line.hose, bore: BLOCKED_BORE * line.hose.bore } : line.hose,
  };
}

/** By which gaps of races differ from the one that is entered. */
const GAPS = [0.8, 1.3, 2.1];

/** Races along each side, narrower and wider ones. */
function racesOf(job: LaidJob) {
  const { raceChance, raceGap } = scatterOf(job);
  const outline = polygonOf(job.part.outline);
  return racingSides(job).flatMap((places, side) =>
    GAPS.map((times) => ({
      event: { kind: 'race' as const, of: `${side}`, where: edgeWord(places, outline), places },
      prior: (raceChance > 0 ? raceChance : RACE_CHANCE) / GAPS.length,
      gap: times * raceGap,
    })),
  );
}

/** Where along the outline, as it lies on the plan. */
export function edgeWord(points: readonly Point[], outline: readonly Point[]): string {
  const box = boundsOf(outline);
  const middle = points[Math.floor((points.length - 1) / 2)]!;
  const end = points[Math.ceil((points.length - 1) / 2)]!;
  const x = ((middle.x + end.x) / 2 - box.minX) / (box.maxX - box.minX || 1);
  const y = ((middle.y + end.y) / 2 - box.minY) / (box.maxY - box.minY || 1);
  const [toX, toY] = [Math.abs(x - 0.5), Math.abs(y - 0.5)];
  if (toX > toY) return x < 0.5 ? 'the left edge' : 'the right edge';
  return y < 0.5 ? 'the lower edge' : 'the upper edge';
}

const GRID = 12;

/** Patches that take resin worse around each corner of the box round the part. */
function cornersOf(job: LaidJob): { event: ShapeEvent; patchwork: Patchwork }[] {
  const { minX, minY, maxX, maxY } = boundsOf(polygonOf(job.part.outline));
  const [shorter, longer] = [maxX - minX, maxY - minY].sort((a, b) => a - b) as [number, number];
  const reach = 0.45 * shorter + 0.15 * longer;
  const corners = [
    { where: 'the lower left corner', x: minX, y: minY },
    { where: 'the lower right corner', x: maxX, y: minY },
    { where: 'the upper right corner', x: maxX, y: maxY },
    { where: 'the upper left corner', x: minX, y: maxY },
  ];
  return corners.map(({ where, ...corner }, n) => ({
    event: { kind: 'cold', of: `${n}`, where, places: [corner] },
    patchwork: patchworkOver(
      job,
      GRID,
      (at) => 1 - (1 - COLD) * Math.max(0, 1 - distance(at, corner) / reach),
    ),
  }));
}

/**
 * @param clock of the plan, for runs in seconds: their times are read as the flow that passes meanwhile
 * @throws ModelError as solveFlow
 */
export function solveShape(
  { problem, fineness, ...task }: ShapeTask,
  clock: ResinClock,
  openTime: number,
): SolvedShape {
  return shapeOf({ ...task, lines: problem.lines }, solveFlow(problem, fineness), clock, openTime);
}

/** A forecast as one of the shapes. */
export function shapeOf(
  { id, event, prior, lines }: Pick<ShapeTask, 'id' | 'event' | 'prior'> & Pick<FlowProblem, 'lines'>,
  flow: FlowForecast,
  clock: ResinClock,
  openTime: number,
): SolvedShape {
  const flowed = (time: number) =>
    flow.timeUnit === 'fluidity' || !Number.isFinite(time)
      ? time
      : clock.fluidity({ from: openTime, to: Math.min(clock.gelTime, openTime + time) });
  return {
    ...{ id, event, prior, mesh: flow.mesh },
    front: flow.layers[0]!.arrival.map(flowed),
    whole: flow.arrival.map(flowed),
    last: flow.isFilled ? flowed(flow.fillTime) : Infinity,
    lastPlace: flow.lastPlace,
    turns: turnsOf(flow, lines).map((turn) => ({ ...turn, time: flowed(turn.time) })),
    drawn: flow.samples.map(({ time, entered }) => ({ time: flowed(time), volume: entered })),
  };
}

/** When each planned turn comes; what waits for the whole part, and then some, comes when it is full at the earliest. */
function turnsOf({ events, fillTime, isFilled }: FlowForecast, lines: FlowProblem['lines']) {
  const came = events.flatMap(({ actionId, lineId, time }) =>
    actionId === null ? [] : [{ actionId, lineId, time }],
  );
  const after = lines.flatMap(({ id: lineId, actions }) =>
    actions.flatMap(({ id: actionId, when }) =>
      actionId !== undefined && when.kind === 'full' && !came.some((turn) => turn.actionId === actionId)
        ? [{ actionId, lineId, time: isFilled ? fillTime : Infinity }]
        : [],
    ),
  );
  return [...came, ...after];
}

/** When a shape's front is at a place, seen from the bag side. */
export const frontAt = ({ mesh, front }: Pick<SolvedShape, 'mesh' | 'front'>, place: Point): number =>
  arrivalAt(mesh, front, place);

/** Places, spread over the fill, at which draws are held against the plan. */
const HELD = [0.15, 0.3, 0.45, 0.6, 0.75, 0.9];

/**
 * Draws without what all of their places share: the one factor is sought apart, and would otherwise count twice.
 * @param shapes the plan's own first
 */
export function withoutCommon(shapes: readonly SolvedShape[]): SolvedShape[] {
  const plan = shapes.find(({ id }) => id === 'plan');
  if (!plan) return [...shapes];
  const order = Array.from(plan.front.keys())
    .filter((i) => plan.front[i]! > 0)
    .sort((a, b) => plan.front[a]! - plan.front[b]!);
  const places = HELD.map((share) => order[Math.floor(share * (order.length - 1))]!).map((i) => ({
    x: plan.mesh.positions[3 * i]!,
    y: plan.mesh.positions[3 * i + 1]!,
  }));
  return shapes.map((shape) => {
    if (shape.event !== null || shape.id === 'plan') return shape;
    const logs = places
      .map((place) => Math.log(frontAt(shape, place) / frontAt(plan, place)))
      .filter(Number.isFinite);
    const by = logs.length > 0 ? Math.exp(-logs.reduce((sum, log) => sum + log, 0) / logs.length) : 1;
    return scaledShape(shape, by);
  });
}

/** All of its times by one factor. */
export const scaledShape = (shape: SolvedShape, by: number): SolvedShape => ({
  ...shape,
  front: shape.front.map((time) => by * time),
  whole: shape.whole.map((time) => by * time),
  last: by * shape.last,
  turns: shape.turns.map((turn) => ({ ...turn, time: by * turn.time })),
  drawn: shape.drawn.map((sample) => ({ ...sample, time: by * sample.time })),
});
