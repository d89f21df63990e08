import { refuse, type Read } from '@wick/plan/files/read';
import { shallowRef } from 'vue';
import type { FileAnswers, FileTask } from './file-tasks.ts';

/** Longest that a file is read, ms. */
const TIME_LIMIT = 5000;
/** Time after which it is said that a file is being read, ms. */
const SAY_AFTER = 300;

/** The part of a worker that is used here, for tests. */
export interface FileWorker {
  onmessage: ((event: MessageEvent<Read<unknown>>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  postMessage(task: FileTask): void;
  terminate(): void;
}

/** What is being read now, and how to give it up; null while nothing is, or not for long. */
export const reading = shallowRef<{ readonly name: string; readonly stop: () => void } | null>(null);

const newWorker = (): FileWorker => new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });

/**
 * Reads a file in a worker of its own, so that whatever is in it the page stays free. It is given up after five seconds, and when
 * someone stops it; what had been taken in before stays as it is.
 */
export function readFile<K extends FileTask['kind']>(
  task: Extract<FileTask, { kind: K }>,
  makeWorker: () => FileWorker = newWorker,
): Promise<Read<FileAnswers[K]>> {
  return new Promise((resolve) => {
    const worker = makeWorker();
    const finish = (answer: Read<unknown>) => {
      clearTimeout(limit);
      clearTimeout(say);
      if (reading.value?.stop === stop) reading.value = null;
      worker.terminate();
      resolve(answer as Read<FileAnswers[K]>);
    };
    const giveUp = (why: string) => finish(refuse('TOO_LARGE', why));
    const stop = () => giveUp('It was stopped.');
    const limit = setTimeout(
      () =>
        giveUp(
          `It could not be read within ${TIME_LIMIT / 1000} s: there is far more in it than such a file holds. Save only what is needed.`,
        ),
      TIME_LIMIT,
    );
    const name = 'file' in task ? task.file.name : 'the drawing';
    const say = setTimeout(() => (reading.value = { name, stop }), SAY_AFTER);
    worker.onmessage = ({ data }) => finish(data);
    worker.onerror = (event) => {
      event.preventDefault?.();
      giveUp('It is built in a way that cannot be read. Save it anew from the program it comes from.');
    };
    worker.postMessage(task);
  });
}
