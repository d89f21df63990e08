import { buffersOf, failureOf, runTask } from './tasks.ts';
import type { Question, Reply } from './wire.ts';

/** Share of a run between two words about it. */
const TOLD = 0.04;
const post = (reply: Reply, buffers: ArrayBuffer[] = []) => postMessage(reply, { transfer: buffers });

onmessage = async ({ data: { number, task, stop } }: MessageEvent<Question>) => {
  let told = 0;
  try {
    const result = await runTask(task, (share) => {
      if (share - told >= TOLD) post({ kind: 'progress', number, share: (told = share) });
      return stop === null || Atomics.load(stop, 0) !== number;
    });
    post({ kind: 'done', number, result }, buffersOf(task, result));
  } catch (error) {
    post({ kind: 'failed', number, failure: failureOf(error) });
  }
};
