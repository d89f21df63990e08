import type { Resolution } from '@wick/contract/flow-request';
import type { Job } from '@wick/contract/job';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { proxy, wrap, type Remote } from 'comlink';
import type { Answer, FlowWorker } from './flow.worker.ts';

interface FlowTask {
  readonly job: Job;
  readonly shop: Shop;
  readonly resolution: Resolution;
}

/** One worker that runs one forecast at a time; of requests that come while it works only the newest is kept. */
export interface FlowRunner {
  /** Null when a newer request took its place, or it was cancelled. */
  run(task: FlowTask, onProgress: (fraction: number) => void): Promise<Answer<FlowForecast> | null>;
  cancel(): void;
}

export function createFlowRunner(): FlowRunner {
  let worker: Worker | null = null;
  let remote: Remote<FlowWorker> | null = null;
  let busy = false;
  let waiting: (() => void) | null = null;
  let generation = 0;
  let giveUp: (() => void) | null = null;

  function start(): Remote<FlowWorker> {
    worker ??= new Worker(new URL('./flow.worker.ts', import.meta.url), { type: 'module' });
    remote ??= wrap<FlowWorker>(worker);
    return remote;
  }

  async function run(
    { job, shop, resolution }: FlowTask,
    onProgress: (fraction: number) => void,
  ): Promise<Answer<FlowForecast> | null> {
    const own = ++generation;
    if (busy) {
      await new Promise<void>((resolve) => {
        waiting?.();
        waiting = resolve;
      });
      if (own !== generation) return null;
    }
    busy = true;
    try {
      const cancelled = new Promise<null>((resolve) => (giveUp = () => resolve(null)));
      return await Promise.race([start().run(job, shop, resolution, proxy(onProgress)), cancelled]);
    } finally {
      busy = false;
      const next: (() => void) | null = waiting;
      waiting = null;
      next?.();
    }
  }

  /** Ends the run at once: the worker is dropped and a new one started with the next request. */
  function cancel() {
    generation += 1;
    if (!busy) return;
    worker?.terminate();
    worker = null;
    remote = null;
    giveUp?.();
  }

  return { run, cancel };
}
