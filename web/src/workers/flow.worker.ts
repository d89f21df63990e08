import { scoreJob } from '@wick/contract/advice';
import { forecastJob } from '@wick/contract/assess';
import type { Resolution } from '@wick/contract/flow-request';
import type { Job } from '@wick/contract/job';
import { sampleJob } from '@wick/contract/sample-job';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { LayoutScore } from '@wick/core/advice/score';
import { ModelError } from '@wick/core/model-error';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { expose, transfer } from 'comlink';

export type Answer<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    const message = error instanceof ModelError ? error.message : `The forecast stopped: ${String(error)}`;
    return { ok: false, message };
  }
}

const worker = {
  run(
    job: Job,
    shop: Shop,
    resolution: Resolution,
    onProgress?: (fraction: number) => void,
  ): Answer<FlowForecast> {
    let told = 0;
    const result = answer(() =>
      forecastJob(job, shop, resolution, (fraction) => {
        if (fraction - told < 0.04) return;
        told = fraction;
        onProgress?.(fraction);
      }),
    );
    const buffers = result.ok ? result.value.frames.map(({ pressure }) => pressure.buffer) : [];
    return transfer(result, buffers);
  },
  /** How a layout ranks among others; null where it cannot run. */
  score: (job: Job, shop: Shop, how: 'quick' | 'thorough'): Answer<LayoutScore | null> =>
    answer(() => scoreJob(job, shop, how)),
  sample: (job: Job, shop: Shop, index: number): Answer<EnsembleSample> =>
    answer(() => sampleJob(job, shop, index)),
};

export type FlowWorker = typeof worker;
expose(worker);
