import type { Entry, EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { distance, type Point } from '@wick/core/geometry/polygon';
import type { Fineness } from '@wick/core/flow/problem';
import { createRandom, normalOf } from '@wick/core/random';
import { clockOf } from '@wick/core/verdict/verdict';
import { doubtOf } from '../forecast/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { resinToMix } from '../resin/ledger.ts';
import { batchesOf } from '../resin/batches.ts';
import { runConditionsOf } from '../resin/run.ts';
import { runStateOf } from '../run/state.ts';
import { createBagRehearsal } from '../vacuum/bag-rehearsal.ts';
import { infusionOf } from './infusion.ts';
import {
  driveShareOf,
  liveClockOf,
  priorOf,
  WEAK_DRIVE,
  type BagReading,
  type LiveClock,
} from './live-clock.ts';
import { whatNow, type TriedOption } from './options.ts';
import { createPartWorld, type PartSeen, type PartTruth } from './part-world.ts';
import {
  problemOfShape,
  shapeTasksOf,
  solveShape,
  withoutCommon,
  type SolvedShape,
} from './problem-shapes.ts';
import { reforecast, type Minutes, type Reforecast } from './reforecast.ts';
import { resinLeftOf } from './resin-left.ts';
import { watchedPlaces } from './watched-places.ts';
import { createBefalling, drawTruth, wordsOfDrawn, type DrawnFault } from './truth.ts';

/** By the plan whatever is seen, or by what the re-forecast advises. */
export type Policy = 'planned' | 'follow';

export interface Rehearsed {
  readonly seed: number;
  readonly policy: Policy;
  readonly faults: readonly DrawnFault[];
  /** The last corner was wet before gel and the hose drew no air. */
  readonly isSaved: boolean;
  /** s since first contact; NaN where it was not. */
  readonly filledAt: number;
  readonly gelTime: number;
  readonly filledShare: number;
  /** Ranges of the last corner before any mark and after each, s since first contact. */
  readonly ranges: readonly {
    readonly marks: number;
    readonly at: number;
    readonly last: Minutes;
    readonly chance: number;
  }[];
  readonly decisions: readonly { readonly at: number; readonly title: string }[];
  readonly log: readonly Entry[];
  /** Of the bag, and how the part stands in the end. */
  readonly readings: readonly BagReading[];
  readonly end: { readonly seen: PartSeen; readonly truth: PartTruth };
}

/** s: pulled down before the first mix; between two looks; between seeing and a valve that has turned. */
const PULLED = 2400;
const LOOK = 15;
const HAND = 10;
/** s between two readings of the bag, and what they flicker by, Pa. */
const GAUGE = 30;
const FLICKER = 150;
/** m by which a place is off where somebody taps. */
const OFF = 0.012;
/** Places on top that the re-forecast asks for, m from any other at least. */
const MORE = 3;
const APART = 0.05;
/** Chance below which advice is asked for, by how much an option has to better it, and s until it is asked again. */
const WORRIED = 0.8;
const BETTER = 60;
const AGAIN = 240;
/** s until a second pump runs, and a leak is found and sealed. */
const SECOND_PUMP = 240;
const SEALED = 600;
/** Where a drawn leak is, for whoever finds it. */
const LEAK = 'drawn';

export interface RehearseOptions {
  readonly seed: number;
  readonly policy: Policy;
  /** From shapesFor; solved anew when left out. */
  readonly shapes?: readonly SolvedShape[];
  readonly faults?: readonly DrawnFault[];
  readonly fineness?: Fineness;
  /** The same job with the doubts by which this part is drawn; its own when left out. */
  readonly drawnFrom?: LaidJob;
}

/** @throws ModelError as solveShape */
export function shapesFor(job: LaidJob, shop: Shop, fineness?: Fineness): SolvedShape[] {
  const run = runConditionsOf(job, shop)!;
  const clock = clockOf(run);
  return withoutCommon(
    shapeTasksOf(job, shop, fineness).map((task) => solveShape(task, clock, run.openTime)),
  );
}

/**
 * A whole infusion of the real part without a screen: somebody opens what the plan says when the front is there, taps the front, and does
 * or does not what is advised. The same seed comes to the same.
 * @throws ModelError as solveShape; NEEDS_RESIN
 */
export function rehearse(job: LaidJob, shop: Shop, options: RehearseOptions): Rehearsed {
  return createOperator(job, shop, options).run();
}

function createOperator(job: LaidJob, shop: Shop, options: RehearseOptions) {
  const { seed, policy, fineness = { nodeCount: 400, steps: 40 } } = options;
  const shapes = options.shapes ?? shapesFor(job, shop, fineness);
  const planned = runConditionsOf(job, shop)!;
  const truth = drawTruth(options.drawnFrom ?? job, shop, seed, options.faults);
  const world = createPartWorld(truth, shop, fineness.nodeCount);
  const bag = createBagRehearsal(job, shop, []);
  const random = createRandom(seed ^ 0x165667b1);
  const plan = shapes[0]!;
  const befalling = createBefalling(truth.faults, bag.truth().limit, LEAK);
  const shareAt = driveShareOf(job, shop);
  const places = watchedPlaces(job, plan);
  const mostPlaces = places.length + MORE;
  const feeds = job.lines.filter(({ kind }) => kind === 'feed');

  const log: Entry[] = [];
  const readings: BagReading[] = [];
  const ranges: Rehearsed['ranges'][number][] = [];
  const decisions: Rehearsed['decisions'][number][] = [];
  const looked = new Set<Point>();
  /** What is to be done at a time, s. */
  let agenda: { readonly at: number; readonly body: EntryBody }[] = [];
  let time = 0;
  let askedAt = -Infinity;

  function say(body: EntryBody): void {
    const at = new Date(time * 1000).toISOString();
    log.push({
      id: `e${log.length}`,
      at,
      by: 'operator',
      body,
      runId: 'r',
      order: log.length,
      writtenAt: at,
      device: '',
    });
    bag.hear(body);
    world.hear(body);
  }
  const later = (after: number, body: EntryBody) => agenda.push({ at: time + after, body });
  const isAgreed = (match: (body: EntryBody) => boolean) => agenda.some(({ body }) => match(body));

  function goOn(to: number): void {
    const due = agenda.filter(({ at }) => at <= to).sort((a, b) => a.at - b.at);
    agenda = agenda.filter(({ at }) => at > to);
    for (const { at, body } of due) {
      passTo(Math.max(time, at));
      say(body);
    }
    passTo(to);
  }

  function passTo(to: number): void {
    time = to;
    bag.pass(to);
    const { pressure } = bag.truth();
    world.pass(to, pressure);
    for (const body of befalling(world.truth().filledShare)) say(body);
    if (to - (readings.at(-1)?.at ?? -Infinity) / 1000 >= GAUGE)
      readings.push({ at: to * 1000, pressure: pressure + FLICKER * normalOf(random) });
  }

  function begin(): void {
    say({ kind: 'pull' });
    goOn(PULLED);
    say({ kind: 'mixed', mass: null });
    for (const { mass, pouredAt } of batchesOf(job, shop)) later(pouredAt, { kind: 'batchPoured', mass });
    if (batchesOf(job, shop).length === 0)
      later(planned.openTime - 1, { kind: 'batchPoured', mass: resinToMix(job, shop) ?? 1 });
    for (const feed of feeds.filter(({ startsOpen }) => startsOpen))
      later(planned.openTime, { kind: 'valve', lineId: feed.id, opening: 1, actionId: null });
  }

  /** Turns what the plan says, as soon as its trigger is seen. */
  function followPlan(): void {
    const turned = new Set(
      log.flatMap(({ body }) => (body.kind === 'valve' && body.actionId ? [body.actionId] : [])),
    );
    for (const actionId of world.due()) {
      if (turned.has(actionId) || isAgreed((body) => body.kind === 'valve' && body.actionId === actionId))
        continue;
      for (const line of job.lines)
        for (const action of line.actions)
          if (action.id === actionId)
            later(HAND, { kind: 'valve', lineId: line.id, opening: action.opening, actionId });
    }
  }

  /** @returns whether a front was seen that had not been */
  function lookForFront(): boolean {
    let isNew = false;
    for (const place of places) {
      if (looked.has(place)) continue;
      const at = world.frontAt(place);
      const clock = world.seen().clock;
      if (Number.isNaN(at) || clock === null || at > clock) continue;
      looked.add(place);
      isNew = true;
      say({
        ...{ kind: 'front', markId: null, doubt: OFF },
        x: place.x + OFF * normalOf(random),
        y: place.y + OFF * normalOf(random),
      });
    }
    return isNew;
  }

  function answerNow(): { live: LiveClock; answer: Reforecast } | null {
    const state = runStateOf(log);
    const infusion = infusionOf(state, job);
    const live = liveClockOf(job, shop, infusion, state, readings);
    if (!live) return null;
    const now = time - live.zero / 1000;
    const prior = priorOf(job, live);
    const gelDoubt = doubtOf(job).gelTime;
    return { live, answer: reforecast({ shapes, infusion, clock: live, prior, gelDoubt, now }) };
  }

  /** What it comes to, and where to look next. */
  function note({ answer }: { answer: Reforecast }): void {
    const next = answer.nextMark?.place;
    if (next && places.length < mostPlaces && places.every((place) => distance(place, next) > APART))
      places.push(next);
    ranges.push({ marks: answer.marks.length, at: answer.now, last: answer.last, chance: answer.chance });
  }

  function takeAdvice({ live, answer }: { live: LiveClock; answer: Reforecast }): void {
    mindTheBag();
    mindThePot(live, answer);
    if (answer.chance >= WORRIED || time - askedAt < AGAIN) return;
    askedAt = time;
    const best = bestOf(live, answer);
    if (!best) return;
    decisions.push({ at: answer.now, title: best.option.title });
    say({ kind: 'decided', option: best.option.id, title: best.option.title, gain: '' });
    for (const { lineId, opening } of best.option.turns)
      later(HAND, { kind: 'valve', lineId, opening, actionId: null });
    if (best.option.warmer > 0)
      later(best.option.takes, {
        kind: 'warming',
        is: 'blanket',
        temperature: live.run.temperature + best.option.warmer,
      });
  }

  function bestOf(live: LiveClock, answer: Reforecast): TriedOption | null {
    const infusion = infusionOf(runStateOf(log), job);
    const resin = resinLeftOf(job, shop, infusion, live, answer);
    const problem = problemOfShape(job, shop, answer.likeliest.shape.id);
    const tried = whatNow({ job, problem, answer, infusion, clock: live, resin, fineness }).filter(
      ({ option }) => !['giveUp', 'shut', 'throttle', 'mix'].includes(option.id),
    );
    const wait = tried.find(({ option }) => option.id === 'wait')!;
    const worth = ({ last, gelTime, wet, shutIn }: TriedOption) =>
      (last < Infinity ? gelTime - last : (wet - 1) * gelTime) - 1e5 * shutIn;
    const best = tried.reduce((most, one) => (worth(one) > worth(most) ? one : most));
    return best.option.id !== 'wait' && worth(best) > worth(wait) + BETTER ? best : null;
  }

  /** Pressure that falls off is looked into: a second pump, or the leak is found. */
  function mindTheBag(): void {
    const last = readings.at(-1);
    if (!last) return;
    if (shareAt(last.pressure) >= WEAK_DRIVE) return;
    if (isAgreed((body) => body.kind === 'fault' || (body.kind === 'looked' && body.state === 'sealed')))
      return;
    later(SECOND_PUMP, { kind: 'fault', fault: 'pumpStopped', did: 'second pump on', mends: true });
    if (bag.truth().leaks.has(LEAK))
      later(SEALED, { kind: 'looked', placeId: LEAK, place: 'a pleat', state: 'sealed', how: 'listener' });
  }

  /** The pot is weighed with every answer; what is missing is mixed in time. */
  function mindThePot(live: LiveClock, answer: Reforecast): void {
    const { pot } = world.seen();
    say({ kind: 'potLeft', mass: pot });
    const infusion = infusionOf(runStateOf(log), job);
    const resin = resinLeftOf(job, shop, infusion, live, answer);
    if (!resin || resin.short === 0 || isAgreed((body) => body.kind === 'batchPoured')) return;
    later(resin.preparation, { kind: 'batchPoured', mass: 1.1 * resin.short });
  }

  return {
    run(): Rehearsed {
      begin();
      const found = () => world.truth();
      for (let asked = 0; ;) {
        goOn(time + LOOK);
        const { hasGelled } = world.seen();
        followPlan();
        const isNews = lookForFront();
        const openedAt = infusionOf({ entries: log }, job).openedAt;
        if (openedAt !== null && (isNews || time - asked > AGAIN)) {
          asked = time;
          const now = answerNow();
          if (now) {
            if (isNews || ranges.length === 0) note(now);
            if (policy === 'follow') takeAdvice(now);
          }
        }
        if (hasGelled || !Number.isNaN(found().filledAt)) break;
      }
      const { filledAt, gelTime, filledShare } = found();
      return {
        ...{ seed, policy, faults: truth.faults, filledAt, gelTime, filledShare, ranges, decisions, log },
        ...{ readings, end: { seen: world.seen(), truth: found() } },
        isSaved: filledAt <= gelTime && found().drewAirAt === null,
      };
    },
  };
}

/** In a line, for a list of rehearsals. */
export const rehearsedWords = ({ faults, decisions }: Pick<Rehearsed, 'faults' | 'decisions'>): string =>
  [...faults.map(wordsOfDrawn), ...decisions.map(({ title }) => `→ ${title}`)].join('; ') ||
  'nothing out of the ordinary';
