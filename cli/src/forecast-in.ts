import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { orNull } from '@wick/core/model-error';
import { forecastJob } from '@wick/plan/forecast/assess';
import type { LaidJob } from '@wick/plan/job/laid';
import { hasFront } from '@wick/plan/processes/processes';

/** The flow of a job, where it can be forecast. */
export const forecastIn = (job: LaidJob, shop: Shop): FlowForecast | null =>
  hasFront(job) ? orNull(() => forecastJob(job, shop)) : null;
