import { doubtOf } from './doubt.ts';
import { runConditionsOf } from '../resin/run.ts';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { solveFlow, type Fineness } from '@wick/core/flow/problem';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { bandFor } from '@wick/core/verdict/rule';
import { clockOf, judge, type Verdict } from '@wick/core/verdict/verdict';
import { problemOf, runsInLayers, type Simplification } from './problem.ts';
import type { LaidJob } from '../job/laid.ts';
import type { Shop } from '@wick/contract/shop';

/** How finely, and how simply, to forecast. */
export type Resolution = Fineness & Simplification;

/** A forecast to be relied on; with each layer its own nodes; a quick one, averaged; and one to follow a hand that drags. */
export const FINE: Resolution = { nodeCount: 3000 };
export const FINE_LAYERS: Resolution = { nodeCount: 1500, steps: 60 };
export const COARSE: Resolution = { nodeCount: 640, steps: 24, layers: false, soft: false };
export const DRAG: Resolution = { ...COARSE, nodeCount: 400, steps: 20, isGlance: true };

/** Good enough to tell one run from another, many times over. */
export const ROUGH: Resolution = { nodeCount: 600, steps: 40, soft: false };
export const ROUGH_LAYERS: Resolution = { ...ROUGH, nodeCount: 300 };

/** How finely a job asks to be forecast. */
export function finenessOf(job: LaidJob): Resolution {
  const { nodeCount } = job.forecast;
  const usual = runsInLayers(job) ? FINE_LAYERS : FINE;
  return nodeCount === null ? usual : { ...usual, nodeCount };
}

/**
 * Flow of a job.
 * @throws ModelError with one sentence when something is missing or impossible
 */
export function forecastJob(
  job: LaidJob,
  shop: Shop,
  resolution: Resolution = FINE,
  onProgress?: (filledFraction: number) => boolean | void,
): FlowForecast {
  return solveFlow(problemOf(job, shop, resolution), { ...finenessIn(resolution), onProgress });
}

/** What of a resolution concerns the solver. */
export const finenessIn = ({ nodeCount, steps, isGlance }: Resolution): Fineness => ({
  nodeCount,
  steps,
  isGlance,
});

/** Flow and verdict of a job in one call, for the command line and the server. Errors as forecastJob. */
export function assess(
  job: LaidJob,
  shop: Shop,
  resolution: Resolution = finenessOf(job),
): { flow: FlowForecast; verdict: Verdict | null } {
  const flow = forecastJob(job, shop, resolution);
  return { flow, verdict: verdictOf(job, shop, flow) };
}

/** Times of a forecast on the clock since first mix, and back; Infinity past gel. */
export interface Timeline {
  clockTime(time: number): number;
  runTime(clockTime: number): number;
}

export function timelineOf(
  flow: Pick<FlowForecast, 'timeUnit'>,
  clock: ResinClock,
  openTime: number,
): Timeline {
  if (flow.timeUnit === 'seconds')
    return {
      clockTime: (time) => openTime + time,
      runTime: (clockTime) => Math.max(0, clockTime - openTime),
    };
  return {
    clockTime: (fluidity) => clock.timeAtFluidity({ from: openTime, fluidity }),
    runTime: (clockTime) => clock.fluidity({ from: openTime, to: Math.max(openTime, clockTime) }),
  };
}

/** Null while no resin is chosen. */
export function verdictOf(job: LaidJob, shop: Shop, flow: FlowForecast): Verdict | null {
  const run = runConditionsOf(job, shop);
  if (!run) return null;
  const rule = shop.judging;
  if (flow.timeUnit === 'fluidity') return judge(flow, run, doubtOf(job), rule);
  // A run in seconds has one answer; its range is read as if all of it stretched like the batch in the pot.
  const clock = clockOf(run);
  const fluidity = (time: number) =>
    clock.fluidity({ from: run.openTime, to: Math.min(run.openTime + time, clock.gelTime) });
  const last = flow.samples[flow.samples.length - 1]!;
  const verdict = judge(
    {
      ...flow,
      fillTime: fluidity(flow.fillTime),
      samples: flow.samples.map((sample) => ({ ...sample, time: fluidity(sample.time) })),
    },
    run,
    doubtOf(job),
    rule,
  );
  const gelled = !flow.isFilled && run.openTime + last.time > NEARLY * clock.gelTime;
  const lifeUsed = flow.isFilled ? flow.oldestAtArrival! : Infinity;
  const fillTime = flow.isFilled ? run.openTime + flow.fillTime : Infinity;
  const facts = {
    ...verdict,
    fillTime,
    lifeUsed,
    // Where the resin is older than that in the pot, its age tells how much of the usable time it has used.
    timeUsed: Math.max(fillTime / verdict.usableTime, lifeUsed / clock.ageAt(verdict.usableTime)),
    reachedFraction: flow.isFilled ? 1 : last.wet,
  };
  const isInTime = flow.isFilled && lifeUsed < 1;
  return { ...facts, band: bandFor({ ...facts, isWet: flow.isFilled || gelled, isInTime }, rule) };
}

/** A run that ends this near to gel without filling was ended by it. */
const NEARLY = 0.9;
