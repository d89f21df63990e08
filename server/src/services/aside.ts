import { Piscina } from 'piscina';
import { programOf } from '../own-files.ts';
import { ProblemError } from './problem.ts';

/** ms without a question after which the thread ends. */
const IDLE = 30_000;

/** MB; ms, waiting for those before included. */
interface AsideLimits {
  readonly memory: number;
  readonly longest: number;
  /** That wait at most, and what they are; as many as come when left out. */
  readonly waiting?: number;
  readonly things?: string;
  /** It stands ready from the start on and stays: to start it takes longer than to answer. */
  readonly isReady?: boolean;
}

/** What was asked took too long or too much memory: nothing is wrong with this server. */
export class TooMuchError extends Error {
  constructor(readonly of: 'time' | 'memory') {
    super(`too much ${of}`);
  }
}

/**
 * Heavy work in a thread of its own; unless it stands ready, it is started by the first question and ended when nothing is asked for a
 * while.
 * @param worker a file whose default export answers a question
 */
export function createAside<Asked, Answer>(worker: URL, limits: AsideLimits) {
  const { waiting = Infinity, things = 'questions', isReady = false } = limits;
  const open = () => {
    const { file, execArgv } = programOf(worker);
    const made = new Piscina({
      filename: file.href,
      execArgv,
      minThreads: isReady ? 1 : 0,
      maxThreads: 1,
      maxQueue: waiting,
      idleTimeout: IDLE,
      resourceLimits: { maxOldGenerationSizeMb: limits.memory },
    });
    // Whoever asked is told; a thread that ends by itself is no end of the server.
    made.on('error', () => undefined);
    return made;
  };
  let pool = isReady ? open() : null;
  return {
    /** @throws ProblemError TOO_OFTEN; TooMuchError; what the worker throws */
    async ask(asked: Asked): Promise<Answer> {
      const aside = (pool ??= open());
      if (aside.queueSize >= waiting)
        throw new ProblemError(
          'TOO_OFTEN',
          `Too many ${things} wait to be worked on. Send this one again in a minute.`,
        );
      const signal = AbortSignal.timeout(limits.longest);
      try {
        return (await aside.run(asked, { signal })) as Answer;
      } catch (error) {
        if (signal.aborted) throw new TooMuchError('time');
        if ((error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY')
          throw new TooMuchError('memory');
        throw error;
      }
    },
    close: async () => pool?.destroy(),
  };
}
