import type { ResultOf, Task } from './tasks.ts';
import type { Reply } from './wire.ts';
import { createAnswers } from './answers.ts';
import { createSlots, type Slot, type WorkerLike } from './slots.ts';

/** What is wanted sooner comes first. The last two may never take every worker. */
export type Lane = 'drag' | 'board' | 'doubt' | 'advice';
const LANES: readonly Lane[] = ['drag', 'board', 'doubt', 'advice'];
const isBackground = (lane: Lane) => lane === 'doubt' || lane === 'advice';

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

/** One question, and who waits for its answer. */
interface Job {
  readonly key: string;
  readonly task: Task;
  readonly wishes: Set<Wish>;
  readonly order: number;
  crashes: number;
  slot: Slot<Job> | null;
}

/** A question that has ended so many workers is not asked again. */
const MOST_CRASHES = 2;
const MOST_KNOWN = 60;
/** Key of what a worker is still ending. */
const GIVEN_UP = '';

const laneOf = ({ wishes }: Job): number =>
  Math.min(...Array.from(wishes, ({ lane }) => LANES.indexOf(lane)));
const inBackground = (job: Job) => isBackground(LANES[laneOf(job)]!);

/** A background job may start only while another worker is left for what the hand waits for. */
const mayStart = (job: Job, busy: readonly Job[], size: number): boolean =>
  size === 1 || !inBackground(job) || busy.filter(inBackground).length < size - 1;

const newJob = (key: string, task: Task, order: number): Job => ({
  key,
  task,
  wishes: new Set(),
  order,
  crashes: 0,
  slot: null,
});

/** What is to be run now of what waits. */
function nextOf(jobs: Iterable<Job>, busy: readonly Job[], size: number): Job | null {
  const waiting = Array.from(jobs).filter(({ slot }) => slot === null);
  waiting.sort((a, b) => laneOf(a) - laneOf(b) || a.order - b.order);
  return waiting.find((job) => mayStart(job, busy, size)) ?? null;
}

/** Waits for the answer to a job as one of those who want it. */
function answerTo(
  job: Job,
  { lane, signal, onProgress }: Options,
  onWithdrawn: () => void,
): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const wish: Wish = { lane, resolve, reject, onProgress };
    job.wishes.add(wish);
    const withdraw = () => {
      if (!job.wishes.delete(wish)) return;
      reject(new Cancelled('cancelled'));
      onWithdrawn();
    };
    signal?.addEventListener('abort', withdraw, { once: true });
  });
}

function refuse({ wishes }: Job, error: Error) {
  wishes.forEach(({ reject }) => reject(error));
}

function brokenOff(times: number, why: string): Error {
  const reason = why ? ` (${why})` : '';
  return new Error(
    `The forecast broke off ${times} times${reason}. Nothing of the job is lost; change something or reload to try again.`,
  );
}

/**
 * One pool of workers for everything. Questions wait in lanes; answers are kept by key; a worker that dies is replaced and its
 * question asked again.
 * @param size most workers, no more than the machine has cores
 */
export function createScheduler(createWorker: () => WorkerLike, size: number): Scheduler {
  const slots = createSlots<Job>(createWorker, size, { hear, onCrash });
  const jobs = new Map<string, Job>();
  const answers = createAnswers(MOST_KNOWN);
  let count = 0;
  let isClosed = false;

  function pump() {
    const next = () => nextOf(jobs.values(), slots.busy(), size);
    for (let job = next(); job && !isClosed; job = next()) {
      const slot = slots.idle();
      if (!slot) return;
      slot.job = job;
      slot.number = ++count;
      job.slot = slot;
      slot.worker.postMessage({ number: slot.number, task: job.task, stop: slot.stop });
    }
  }

  function hear(slot: Slot<Job>, reply: Reply) {
    // A reply of a question that was given up.
    if (reply.number !== slot.number) return;
    const { job } = slot;
    if (reply.kind === 'progress') return job?.wishes.forEach(({ onProgress }) => onProgress?.(reply.share));
    slot.job = null;
    if (job && job.key !== GIVEN_UP) {
      jobs.delete(job.key);
      if (reply.kind === 'done') {
        answers.remember(job.key, reply.result);
        job.wishes.forEach(({ resolve }) => resolve(reply.result));
      } else refuse(job, new Error(reply.failure.message));
    }
    pump();
  }

  function onCrash(slot: Slot<Job>, why: string) {
    const { job } = slot;
    slots.drop(slot);
    if (job) {
      job.slot = null;
      job.crashes += 1;
      if (job.crashes >= MOST_CRASHES) {
        jobs.delete(job.key);
        refuse(job, brokenOff(job.crashes, why));
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
    } else slots.drop(slot);
    pump();
  }

  return {
    want(key, task, options) {
      if (options.signal?.aborted || isClosed) return Promise.reject(new Cancelled('cancelled'));
      if (answers.has(key)) return Promise.resolve(answers.take(key) as never);
      const job = jobs.get(key) ?? newJob(key, task, ++count);
      jobs.set(key, job);
      const answer = answerTo(job, options, () => {
        if (job.wishes.size === 0 && jobs.get(key) === job) giveUp(job);
      });
      pump();
      return answer as never;
    },
    known: (key) => answers.look(key) as never,
    close() {
      isClosed = true;
      for (const job of jobs.values()) refuse(job, new Cancelled('closed'));
      jobs.clear();
      slots.close();
    },
  };
}
