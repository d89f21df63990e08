import { createAside, TooMuchError } from '../aside.ts';
import { ProblemError } from '../problem.ts';
import type { Asked } from './reading.worker.ts';
import { readings, type Readings } from './readings.ts';

/** Reads documents without holding up whoever else asks something. */
export type JobReader = {
  readonly [K in keyof Readings]: (...given: Parameters<Readings[K]>) => Promise<ReturnType<Readings[K]>>;
};

/** Reads where it is called: for tools that nobody else waits for. */
export const readHere: JobReader = {
  read: async (...given) => readings.read(...given),
  readAndSummarise: async (...given) => readings.readAndSummarise(...given),
  readFile: async (...given) => readings.readFile(...given),
};

/** A document of fewer values is read sooner than it is sent away. */
const LARGE = 4000;
const LARGE_TEXT = 100_000;

interface Limits {
  /** ms, waiting for the one before included. */
  readonly longest?: number;
  /** MB */
  readonly memory?: number;
}

/**
 * Large documents are read in a thread of their own, which stands ready: to start it takes longer than to read.
 * @throws ProblemError TOO_LARGE, from its readings, after a minute
 */
export function createJobReader({ longest = 60_000, memory = 1024 }: Limits = {}): JobReader & {
  /** The thread has started: who comes before waits for it. */
  readonly ready: Promise<unknown>;
  readonly close: () => Promise<void>;
} {
  const aside = createAside<Asked, unknown>(new URL('./reading.worker.ts', import.meta.url), {
    ...{ memory, longest, isReady: true },
  });

  async function runAside<Answer>(asked: Asked): Promise<Answer> {
    try {
      return (await aside.ask(asked)) as Answer;
    } catch (error) {
      if (!(error instanceof TooMuchError && error.of === 'time')) throw error;
      throw new ProblemError(
        'TOO_LARGE',
        'Reading this job takes longer than a minute. Nothing was changed; try again later, or give it fewer corners or plies.',
      );
    }
  }

  const reader =
    <Given extends unknown[], Answer>(read: (...given: Given) => Answer, name: keyof Readings) =>
    async (...given: Given): Promise<Answer> =>
      isLarge(given[0]) ? runAside<Answer>({ name, given } as unknown as Asked) : read(...given);

  return {
    read: reader(readings.read, 'read'),
    readAndSummarise: reader(readings.readAndSummarise, 'readAndSummarise'),
    readFile: reader(readings.readFile, 'readFile'),
    ready: aside.ask({ name: 'read', given: [null] }).catch(() => undefined),
    close: aside.close,
  };
}

/** Looks no further than it has to. */
function isLarge(value: unknown): boolean {
  let left = LARGE;
  const count = (item: unknown): void => {
    left -= 1;
    if (left < 0) return;
    if (typeof item === 'string') left -= item.length / (LARGE_TEXT / LARGE);
    else if (typeof item === 'object' && item !== null)
      for (const own of Object.values(item)) {
        if (left < 0) return;
        count(own);
      }
  };
  count(value);
  return left < 0;
}
