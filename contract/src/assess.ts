import { forecastFlow, type FlowForecast } from '@wick/core/flow/forecast';
import { judge, type Verdict } from '@wick/core/verdict/verdict';
import type { VerdictSummary } from './api.ts';
import { doubtOf, flowRequestOf, runConditionsOf } from './forecast-input.ts';
import type { Job } from './job.ts';
import type { Shop } from './shop.ts';

/** Nodes of a forecast that is to be relied on, and of the quick one while a line is being dragged. */
export const FINE_NODES = 3000;
export const COARSE_NODES = 800;

/**
 * Flow and verdict of a job in one call, for the command line and the server.
 * @throws ModelError with one sentence when something is missing or impossible
 */
export function assess(
  job: Job,
  shop: Shop,
  nodeCount = FINE_NODES,
): { flow: FlowForecast; verdict: Verdict | null } {
  const flow = forecastFlow(flowRequestOf(job, shop, nodeCount));
  return { flow, verdict: verdictOf(job, shop, flow) };
}

/** Null while no resin is chosen. */
export function verdictOf(job: Job, shop: Shop, flow: FlowForecast): Verdict | null {
  const run = runConditionsOf(job, shop);
  return run && judge(flow, run, doubtOf(job));
}

export function summaryOf(verdict: Verdict, revision: number): VerdictSummary {
  const { band, fillTime, gelTime } = verdict;
  return { revision, band, fillTime: Number.isFinite(fillTime) ? fillTime : null, gelTime };
}
