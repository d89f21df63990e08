import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { orNull } from '@wick/core/model-error';
import { forecastJob, finenessOf } from '@wick/plan/forecast/assess';
import type { LaidJob } from '@wick/plan/job/laid';
import { hasFront } from '@wick/plan/processes/processes';
import { numberIn } from './read-job.ts';

/** The flow of a job, where it can be forecast. @param nodes as typed after --nodes; as fine as the job says when left out */
export function forecastIn(job: LaidJob, shop: Shop, nodes?: string): FlowForecast | null {
  const usual = finenessOf(job);
  const nodeCount = numberIn(nodes ?? String(usual.nodeCount), '--nodes', 50, 60_000);
  return hasFront(job) ? orNull(() => forecastJob(job, shop, { ...usual, nodeCount })) : null;
}
