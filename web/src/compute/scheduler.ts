import type { ResultOf, Task } from './tasks.ts';
import type { Question, Reply } from './wire.ts';

/** What is wanted sooner comes first. The last two may never take every worker. */
export type Lane = 'drag' | 'board' | 'doubt' | 'advice';
const LANES: readonly Lane[] = ['drag', 'board', 'doubt', 'advice'];
const isBackground = (lane: Lane) => lane === 'doubt' || lane === 'advice';

/** The part of a worker that is used. */
export interface WorkerLike {
  postMessage(question: Question): void;
  terminate(): void;
  onmessage: ((event: MessageEvent<Reply>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  onmessageerror?: ((event: MessageEvent) => void) | null;
}

interface Options {
  readonly lane: Lane;
  /** Nobody wants the answer any more once it is set off; a run that only this one wanted ends at once. */
  readonly signal?: AbortSignal;
  readonly onProgress?: (share: number) => void;
}

export interface Scheduler {
  /**
   * The answer to a task, from what is known or from a worker; one run serves all who want it by its key.
   * @throws Cancelled when the signal was set off; Error with the sentence of the failure
   */
  want<T extends Task>(key: string, task: T, options: Options): Promise<ResultOf<T>>;
  /** What is known by a key, without asking. */
  known<T extends Task>(key: string): ResultOf<T> | undefined;
  close(): void;
}

/** The answer is no longer wanted. */
export class Cancelled extends Error {}

interface Wish {
  readonly lane: Lane;
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly onProgress?: (share: number) => void;
}

interface Job {
  readonly key: string;
  readonly task: Task;
  readonly wishes: Set<Wish>;
  readonly order: number;
  crashes: number;
  slot: Slot | null;
}

interface Slot {
  readonly worker: WorkerLike;
  readonly stop: Int32Array | null;
  job: Job | null;
  number: number;
}

/** A question that has ended so many workers is not asked again. */
const MOST_CRASHES = 2;
const MOST_KNOWN = 60;
/** Key of what a worker is still ending. */
const GIVEN_UP = '';

/**
 * One pool of workers for everything. Questions wait in lanes; answers are kept by key; a worker that dies is replaced and its
 * question asked again.
 * @param size most workers, no more than the machine has cores
 */
export function createScheduler(createWorker: () => WorkerLike, size: number): Scheduler {
  const slots: Slot[] = [];
  const jobs = new Map<string, Job>();
  const answers = new Map<string, unknown>();
  let count = 0;
  let isClosed = false;

  const laneOf = ({ wishes }: Job): number =>
    Math.min(...Array.from(wishes, ({ lane }) => LANES.indexOf(lane)));
  const inBackground = (job: Job) => isBackground(LANES[laneOf(job)]!);

  function createSlot(): Slot {
    const worker = createWorker();
    const stop = typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4));
    const slot: Slot = { worker, stop, job: null, number: 0 };
    worker.onmessage = ({ data }) => hear(slot, data);
    worker.onerror = (event) => onCrash(slot, event?.message ?? '');
    worker.onmessageerror = () => onCrash(slot, 'its answer could not be read');
    slots.push(slot);
    return slot;
  }

  function drop(slot: Slot) {
    slot.worker.onmessage = slot.worker.onerror = null;
    slot.worker.terminate();
    slots.splice(slots.indexOf(slot), 1);
  }

  /** A background job may start only while another worker is left for what the hand waits for. */
  function mayStart(job: Job): boolean {
    if (size === 1 || !inBackground(job)) return true;
    const busy = slots.filter((slot) => slot.job && inBackground(slot.job)).length;
    return busy < size - 1;
  }

  function next(): Job | null {
    const waiting = Array.from(jobs.values()).filter(({ slot }) => slot === null);
    waiting.sort((a, b) => laneOf(a) - laneOf(b) || a.order - b.order);
    return waiting.find(mayStart) ?? null;
  }

  function pump() {
    for (let job = next(); job && !isClosed; job = next()) {
      const slot = slots.find((one) => one.job === null) ?? (slots.length < size ? createSlot() : null);
      if (!slot) return;
      slot.job = job;
      slot.number = ++count;
      job.slot = slot;
      slot.worker.postMessage({ number: slot.number, task: job.task, stop: slot.stop });
    }
  }

  function hear(slot: Slot, reply: Reply) {
    // A reply of a question that was given up.
    if (reply.number !== slot.number) return;
    const { job } = slot;
    if (reply.kind === 'progress') return job?.wishes.forEach(({ onProgress }) => onProgress?.(reply.share));
    slot.job = null;
    if (job && job.key !== GIVEN_UP) {
      jobs.delete(job.key);
      if (reply.kind === 'done') {
        remember(job.key, reply.result);
        job.wishes.forEach(({ resolve }) => resolve(reply.result));
      } else job.wishes.forEach(({ reject }) => reject(new Error(reply.failure.message)));
    }
    pump();
  }

  function remember(key: string, result: unknown) {
    answers.delete(key);
    answers.set(key, result);
    if (answers.size > MOST_KNOWN) answers.delete(answers.keys().next().value!);
  }

  function onCrash(slot: Slot, why: string) {
    const { job } = slot;
    drop(slot);
    if (job) {
      job.slot = null;
      job.crashes += 1;
      if (job.crashes >= MOST_CRASHES) {
        jobs.delete(job.key);
        const reason = why ? ` (${why})` : '';
        const error = new Error(
          `The forecast broke off ${job.crashes} times${reason}. Nothing of the job is lost; change something or reload to try again.`,
        );
        job.wishes.forEach(({ reject }) => reject(error));
      }
    }
    pump();
  }

  /** Nobody wants it any more: off the list, or the run ended. */
  function giveUp(job: Job) {
    jobs.delete(job.key);
    const { slot } = job;
    if (!slot) return;
    slot.job = null;
    job.slot = null;
    if (slot.stop) {
      // The worker looks at it after each step and stays alive; until it has, it is not idle.
      Atomics.store(slot.stop, 0, slot.number);
      slot.job = { ...job, key: GIVEN_UP, wishes: new Set(), slot };
    } else drop(slot);
    pump();
  }

  return {
    want(key, task, { lane, signal, onProgress }) {
      if (signal?.aborted || isClosed) return Promise.reject(new Cancelled('cancelled'));
      if (answers.has(key)) {
        const result = answers.get(key);
        remember(key, result);
        return Promise.resolve(result as never);
      }
      let job = jobs.get(key);
      if (!job) {
        job = { key, task, wishes: new Set(), order: ++count, crashes: 0, slot: null };
        jobs.set(key, job);
      }
      const own = job;
      return new Promise((resolve, reject) => {
        const wish: Wish = { lane, resolve: resolve as Wish['resolve'], reject, onProgress };
        own.wishes.add(wish);
        signal?.addEventListener(
          'abort',
          () => {
            if (!own.wishes.delete(wish)) return;
            reject(new Cancelled('cancelled'));
            if (own.wishes.size === 0 && jobs.get(own.key) === own) giveUp(own);
          },
          { once: true },
        );
        pump();
      });
    },
    known: (key) => answers.get(key) as never,
    close() {
      isClosed = true;
      for (const job of jobs.values()) job.wishes.forEach(({ reject }) => reject(new Cancelled('closed')));
      jobs.clear();
      [...slots].forEach(drop);
    },
  };
}
