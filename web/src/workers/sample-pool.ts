import type { Job } from '@wick/contract/job';
import type { Shop } from '@wick/contract/shop';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { createPool } from './worker-pool.ts';

export interface SampleRun {
  /** Resolves when all are done or the run was cancelled; rejects with the sentence of the first failure. */
  readonly done: Promise<void>;
  cancel(): void;
}

/** Runs samples 0 .. count in a pool; each result is handed over as it comes. */
export function runSamples(
  task: { job: Job; shop: Shop; count: number },
  onSample: (sample: EnsembleSample) => void,
): SampleRun {
  const pool = createPool();
  let stop: () => void = () => undefined;
  const cancelled = new Promise<void>((resolve) => (stop = resolve));
  const all = Promise.all(
    Array.from({ length: task.count }, async (_, index) =>
      onSample(await pool.submit((worker) => worker.sample(task.job, task.shop, index))),
    ),
  ).then(() => undefined);
  // A worker that was ended never answers; its promise must not be reported as unhandled.
  all.catch(() => undefined);
  return { done: Promise.race([all, cancelled]).finally(pool.close), cancel: stop };
}
