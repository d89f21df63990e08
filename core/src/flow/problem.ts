import { cureLawOf } from '../resin/cure-law.ts';
import { gelTime } from '../resin/gel-time.ts';
import { createPotContents, type PouredBatch } from '../resin/pot-contents.ts';
import type { ResinClock } from '../resin/resin-clock.ts';
import { clockNear, clockOf, type RunConditions } from '../verdict/verdict.ts';
import type { Mesh } from '../geometry/mesh.ts';
import { forecastFlow, type FlowForecast } from './forecast.ts';
import type { ForecastRequest, LayoutAction, LayoutLine } from './layout.ts';

/**
 * All of a job that changes where the front is, as data alone: it can be stored, sent and compared. Times of actions run from
 * first mix, s. Names serve messages only.
 */
export interface FlowProblem extends Omit<
  ForecastRequest,
  'later' | 'until' | 'resin' | 'shell' | 'onProgress' | 'start' | 'stopAt' | keyof Fineness
> {
  /** The resin and its temperature, where anything waits for the clock or for gel; null: times are fluidity times for any resin. */
  readonly run: RunConditions | null;
  /** Set where the resin differs from place to place; the run then counts seconds. */
  readonly moving: MovingConditions | null;
  /** A soft laminate goes on settling after the fill, until gel. */
  readonly settles: boolean;
}

export interface MovingConditions {
  /** Of the mould, K, zone by zone, the part's own first. */
  readonly temperatures: readonly number[];
  /** Where there is more than one batch, all of them, in the order in which they are poured. */
  readonly batches: readonly FlowBatch[];
}

/** A batch of resin and where it goes; times s since first mix. */
export interface FlowBatch {
  /** Which of the pots. */
  readonly pot: number;
  readonly mixedAt: number;
  readonly pouredAt: number;
  /** kg, and m3 */
  readonly mass: number;
  readonly volume: number;
}

/** How finely to work a problem out; what comes out converges to one answer. */
export interface Fineness {
  readonly nodeCount: number;
  readonly steps?: number;
  /** For a hand that is dragging: a third of the time, and some per cent of the fill time off. */
  readonly isGlance?: boolean;
}

export interface SolveOptions extends Fineness {
  readonly onProgress?: ForecastRequest['onProgress'];
  /** Surface to run on instead of the flat plan; the lines are those of the problem. */
  readonly shell?: Mesh;
  /** See ForecastRequest. */
  readonly start?: ForecastRequest['start'];
  readonly stopAt?: number;
}

/**
 * Forecast of a flow problem.
 * @throws ModelError as forecastFlow, and of the resin's curves
 * Checked by problem.test.ts.
 */
export function solveFlow(problem: FlowProblem, options: SolveOptions): FlowForecast {
  return forecastFlow(requestOf(problem, options));
}

/** The problem with its clock as functions, for the solver. */
export function requestOf(problem: FlowProblem, options: SolveOptions): ForecastRequest {
  const { run, moving, settles, lines, ...rest } = problem;
  const clockwork = run && clockworkOf(run, moving !== null);
  return {
    ...rest,
    ...options,
    lines: clockwork ? lines.map((line) => onClock(line, clockwork)) : lines,
    later: clockwork?.later,
    until: settles ? clockwork?.gel : undefined,
    resin: (run && moving && movingResin(run, moving, clockwork!.clock)) ?? undefined,
  };
}

interface Clockwork {
  readonly clock: ResinClock;
  /** Run time at a time since first mix, and so many seconds after a run time; gel as a run time. */
  at(time: number): number;
  later(time: number, seconds: number): number;
  readonly gel: number;
}

function clockworkOf(run: RunConditions, inSeconds: boolean): Clockwork {
  const clock = clockOf(run);
  const from = run.openTime;
  if (inSeconds)
    return {
      clock,
      at: (time) => Math.max(0, time - from),
      later: (time, seconds) => time + seconds,
      gel: clock.gelTime - from,
    };
  return {
    clock,
    // What lies past gel never comes.
    at: (time) => (time < clock.gelTime ? clock.fluidity({ from, to: Math.max(from, time) }) : Infinity),
    later: (time, seconds) => {
      const then = clock.timeAtFluidity({ from, fluidity: time }) + seconds;
      return then < clock.gelTime ? clock.fluidity({ from, to: then }) : Infinity;
    },
    gel: clock.fluidity({ from, to: clock.gelTime }),
  };
}

const onClock = (line: LayoutLine, { at }: Clockwork): LayoutLine => ({
  ...line,
  actions: line.actions.map((action): LayoutAction =>
    action.when.kind === 'time' ? { ...action, when: { kind: 'time', time: at(action.when.time) } } : action,
  ),
});

/** Resin enters as old as it is in its pot, and takes the mould's temperature at once: laminates are thin. */
function movingResin(
  run: RunConditions,
  { temperatures, batches }: MovingConditions,
  clock: ResinClock,
): ForecastRequest['resin'] {
  const law = cureLawOf(run.resin);
  for (const temperature of temperatures) gelTime(run.resin, temperature);
  const drift = run.drift ?? 0;
  const whole: PouredBatch = { mixedAt: 0, pouredAt: 0, amount: 1, clock };
  const poured = batches.map((batch): PouredBatch & { pot: number } => ({
    pot: batch.pot,
    mixedAt: batch.mixedAt,
    pouredAt: batch.pouredAt,
    amount: batch.volume,
    clock: run.pot ? clockNear(potAt(run, run.pot, batch), 0) : clock,
  }));
  const pots = Array.from({ length: 1 + Math.max(0, ...batches.map(({ pot }) => pot)) }, (_, pot) => {
    const own = poured.filter((batch) => batch.pot === pot);
    return createPotContents(own.length > 0 ? own : [whole]);
  });
  return {
    law,
    temperature: (zone, time) => temperatures[zone] + drift * (run.openTime + time),
    inletState: (time, drawn, pot = 0) =>
      law.gelState * (pots[pot] ?? pots[0]).ageAt(run.openTime + time, drawn),
  };
}

/** The conditions in which a batch is mixed: the shop has warmed or cooled by then. */
function potAt(
  run: RunConditions,
  { ambient }: { ambient: number },
  { mixedAt, mass }: { mixedAt: number; mass: number },
): RunConditions {
  const drifted = (run.drift ?? 0) * mixedAt;
  return { ...run, temperature: run.temperature + drifted, pot: { mass, ambient: ambient + drifted } };
}
