import type { Job } from '@wick/contract/job';
import type { Shop } from '@wick/contract/shop';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { wrap } from 'comlink';
import type { FlowWorker } from './flow.worker.ts';

export interface SampleRun {
  /** Resolves when all are done or the run was cancelled; rejects with the sentence of the first failure. */
  readonly done: Promise<void>;
  cancel(): void;
}

/** Runs samples 0 .. count on as many workers as the machine has cores to spare; each result is handed over as it comes. */
export function runSamples(
  task: { job: Job; shop: Shop; count: number },
  onSample: (sample: EnsembleSample) => void,
): SampleRun {
  const width = Math.max(1, Math.min(8, (navigator.hardwareConcurrency || 2) - 1));
  const workers = Array.from(
    { length: width },
    () => new Worker(new URL('./flow.worker.ts', import.meta.url), { type: 'module' }),
  );
  let next = 0;
  let stop: () => void = () => undefined;
  const cancelled = new Promise<void>((resolve) => (stop = resolve));

  async function work(worker: Worker) {
    const remote = wrap<FlowWorker>(worker);
    while (next < task.count) {
      const answer = await remote.sample(task.job, task.shop, next++);
      if (!answer.ok) throw new Error(answer.message);
      onSample(answer.value);
    }
  }

  const end = () => workers.forEach((worker) => worker.terminate());
  const all = Promise.all(workers.map(work)).then(() => undefined);
  // A worker that was ended never answers; its promise must not be reported as unhandled.
  all.catch(() => undefined);
  return {
    done: Promise.race([all, cancelled]).finally(end),
    cancel() {
      next = task.count;
      stop();
    },
  };
}
