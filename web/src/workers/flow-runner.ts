import type { ForecastRequest } from '@wick/core/flow/forecast';
import { proxy, wrap, type Remote } from 'comlink';
import type { FlowAnswer, FlowWorker } from './flow.worker.ts';

/** One worker that runs one forecast at a time; of requests that come while it works only the newest is kept. */
export interface FlowRunner {
  /** Null when a newer request took its place, or it was cancelled. */
  run(request: ForecastRequest, onProgress: (fraction: number) => void): Promise<FlowAnswer | null>;
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
    request: ForecastRequest,
    onProgress: (fraction: number) => void,
  ): Promise<FlowAnswer | null> {
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
      return await Promise.race([start().run(request, proxy(onProgress)), cancelled]);
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
