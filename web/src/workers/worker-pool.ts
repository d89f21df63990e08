import { wrap, type Remote } from 'comlink';
import type { Answer, FlowWorker } from './flow.worker.ts';

/** Several workers that take tasks in turn. */
export interface WorkerPool {
  /** Resolves with what the task comes to; rejects with its sentence when it fails; never settles once the pool is closed. */
  submit<T>(task: (worker: Remote<FlowWorker>) => Promise<Answer<T>>): Promise<T>;
  /** Ends every worker at once, whatever it is doing. */
  close(): void;
}

/** As many workers as the machine has cores to spare. */
export function createPool(): WorkerPool {
  const width = Math.max(1, Math.min(8, (navigator.hardwareConcurrency || 2) - 1));
  const workers = Array.from(
    { length: width },
    () => new Worker(new URL('./flow.worker.ts', import.meta.url), { type: 'module' }),
  );
  const idle = workers.map((worker) => wrap<FlowWorker>(worker));
  const waiting: ((worker: Remote<FlowWorker>) => void)[] = [];
  let closed = false;

  return {
    async submit(task) {
      const worker =
        idle.pop() ?? (await new Promise<Remote<FlowWorker>>((resolve) => waiting.push(resolve)));
      try {
        const answer = await task(worker);
        if (!answer.ok) throw new Error(answer.message);
        return answer.value;
      } finally {
        const next = waiting.shift();
        if (closed) waiting.length = 0;
        else if (next) next(worker);
        else idle.push(worker);
      }
    },
    close() {
      closed = true;
      workers.forEach((worker) => worker.terminate());
    },
  };
}
