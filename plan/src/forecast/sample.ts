import { scatterOf } from './doubt.ts';
import { drawJob } from './draw.ts';
import { runConditionsOf } from '../resin/run.ts';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { fills } from '@wick/core/verdict/rule';
import { clockOf } from '@wick/core/verdict/verdict';
import { forecastJob, ROUGH, ROUGH_LAYERS, timelineOf, verdictOf } from './assess.ts';
import { runsInLayers, runsOnClock } from './problem.ts';
import type { LaidJob } from '../job/laid.ts';
import type { Shop } from '@wick/contract/shop';

/** Each sample has to be solved anew when more than a factor on the fluidity time is in doubt. */
export function needsSolving(job: LaidJob): boolean {
  const { thickness, raceChance } = scatterOf(job);
  return runsOnClock(job) || thickness > 1 || raceChance > 0;
}

/**
 * One run of a job with its unknowns drawn from their spreads; the same index gives the same draw every time.
 * @throws ModelError as forecastJob, and when no resin is chosen
 */
export function sampleJob(job: LaidJob, shop: Shop, index: number): EnsembleSample {
  const { inputs, drawn } = drawJob(job, shop, index);
  const flow = forecastJob(drawn, shop, runsInLayers(job) ? ROUGH_LAYERS : ROUGH);
  const run = runConditionsOf(drawn, shop)!;
  const clock = clockOf(run);
  const { clockTime } = timelineOf(flow, clock, run.openTime);
  const verdict = verdictOf(drawn, shop, flow)!;
  return {
    inputs,
    fillTime: flow.isFilled ? clockTime(flow.fillTime) : Infinity,
    gelTime: clock.gelTime,
    fills: fills(verdict.band),
    flowUsed: verdict.flowUsed,
    marks: flow.marks.map(({ arrival }) => (Number.isNaN(arrival) ? Infinity : clockTime(arrival))),
    worstPlace: flow.dryRegions[0]?.place ?? flow.lastPlace,
  };
}
