import type { Shop } from '@wick/contract/shop';
import { lookAhead, weighShapes } from '@wick/core/reforecast/shapes';
import type { Point } from '@wick/core/geometry/polygon';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { doubtOf } from '../forecast/doubt.ts';
import { infusionOf, type Infusion } from '../infusion/infusion.ts';
import { liveClockOf, priorOf, type BagReading, type LiveClock } from '../infusion/live-clock.ts';
import { frontAt, type SolvedShape } from '../infusion/problem-shapes.ts';
import { reforecast, type Minutes, type Reforecast } from '../infusion/reforecast.ts';
import type { LaidJob } from '../job/laid.ts';
import type { RunState } from '../run/state.ts';

export interface FillReviewRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly state: Pick<RunState, 'entries'>;
  /** Of the bag, ascending. */
  readonly readings: readonly BagReading[];
  /** The plan's own first; draws without their common factor. */
  readonly shapes: readonly SolvedShape[];
}

/** A fill that is over, beside what its plan had said. Times s since first contact; Infinity for never. */
export interface FillReview {
  readonly infusion: Infusion;
  readonly clock: LiveClock;
  /** By the plan alone, opened when it was opened. */
  readonly planned: { readonly last: Minutes; readonly gelTime: number };
  /** Where the plan has the last corner. */
  readonly plannedEnd: Point;
  /** Share of the part that the plan itself leaves dry, 0-1. */
  readonly plannedDry: number;
  /** null where nobody said it was wet. */
  readonly wetAt: number | null;
  /** When it last was looked at. */
  readonly endedAt: number;
  readonly marks: readonly { readonly place: Point; readonly planned: Minutes; readonly seen: number }[];
  readonly turns: readonly {
    readonly lineId: string;
    readonly actionId: string;
    readonly planned: Minutes;
    readonly done: number | null;
  }[];
  /** What the marks make of the part, on its own clock and drive. */
  readonly answer: Reforecast;
  /** ln of the one factor by the marks alone, and its standard deviation; null without marks. */
  readonly factor: { readonly mean: number; readonly deviation: number } | null;
}

/** Around a fill that is looked at, ms: what was read before it was opened, and until it has settled. */
const BEFORE = 900_000;
const AFTER = 3_600_000;

/** When it ended as far as anybody said, ms since 1970. */
const lastWord = ({ allWetAt, seen, turned }: Infusion): number =>
  Math.max(
    ...[...(allWetAt === null ? [] : [allWetAt]), ...seen.map(({ at }) => at), ...turned.map(({ at }) => at)],
  );

/** The time in which a bag's gauge tells of this fill, ms since 1970: it hangs on other parts before and after. null where nothing was opened. */
export function fillSpanOf(infusion: Infusion): { readonly from: number; readonly to: number } | null {
  return infusion.openedAt === null
    ? null
    : { from: infusion.openedAt - BEFORE, to: lastWord(infusion) + AFTER };
}

/** So wide a doubt beforehand leaves the word to the marks. */
const OPEN_MIND = Math.log(5) / NINE_IN_TEN;

/** @returns null where no feed was opened, or no resin is chosen @throws ModelError of the resin's curves */
export function fillReviewOf({ job, shop, state, readings, shapes }: FillReviewRequest): FillReview | null {
  const infusion = infusionOf(state, job);
  const { contactAt, openedAt, allWetAt } = infusion;
  if (openedAt === null || contactAt === null || shapes.length === 0) return null;
  const clock = liveClockOf(job, shop, infusion, state, readings);
  const plan = liveClockOf(job, shop, infusion, { entries: [] }, []);
  if (!clock || !plan) return null;
  const since = (at: number) => (at - contactAt) / 1000;
  const endedAt = since(lastWord(infusion));
  const gelDoubt = doubtOf(job).gelTime;
  const answer = reforecast({ shapes, infusion, clock, prior: priorOf(job, clock), gelDoubt, now: endedAt });
  const open = reforecast({ shapes, infusion, clock, prior: OPEN_MIND, gelDoubt, now: endedAt });

  const weighed = weighShapes(
    shapes.map(({ id, event, prior, last }) => ({
      ...{ id, prior, last, atMarks: [] },
      event: event && `${event.kind}:${event.of}`,
    })),
    [],
    priorOf(job, plan),
  );
  const expected = (times: readonly number[]): Minutes => {
    const { at } = lookAhead(
      weighed,
      times,
      shapes.map(() => NaN),
    );
    const { timeOf } = plan.driven;
    return { early: timeOf(at(0.1)), middle: timeOf(at(0.5)), late: timeOf(at(0.9)) };
  };
  return {
    ...{ infusion, clock, endedAt, answer },
    planned: { last: expected(shapes.map(({ last }) => last)), gelTime: plan.clock.gelTime },
    plannedEnd: shapes[0]!.lastPlace,
    plannedDry: dryShareOf(shapes[0]!),
    wetAt: allWetAt === null ? null : since(allWetAt),
    marks: infusion.seen.map((mark) => ({
      place: { x: mark.x, y: mark.y },
      planned: expected(shapes.map((shape) => frontAt(shape, mark))),
      seen: since(mark.at),
    })),
    turns: shapes[0]!.turns.map(({ actionId, lineId }) => {
      const done = infusion.turned.find((turn) => turn.actionId === actionId);
      return {
        ...{ actionId, lineId, done: done ? since(done.at) : null },
        planned: expected(
          shapes.map(({ turns }) => turns.find((turn) => turn.actionId === actionId)?.time ?? Infinity),
        ),
      };
    }),
    factor:
      open.marks.length === 0
        ? null
        : {
            mean: Math.log(open.factor.middle),
            deviation: Math.log(open.factor.late / open.factor.early) / (2 * NINE_IN_TEN),
          },
  };
}

const dryShareOf = ({ whole }: SolvedShape): number =>
  whole.reduce((count, time) => count + Number(Number.isNaN(time)), 0) / whole.length;
