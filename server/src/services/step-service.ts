import type { StoredSteps } from '@wick/contract/api';
import { stepLibrarySchema, type StepLibrary } from '@wick/contract/steps';
import { usualSteps } from '@wick/plan/card/usual-steps';
import type { StepRepo } from '../repo/step-repo.ts';
import { ProblemError } from './problem.ts';

export type StepService = ReturnType<typeof createStepService>;

const MOST_SHOWN = 200;

/** The workshop's library of steps: the usual one until somebody changes it; every revision is kept. */
export function createStepService(repo: StepRepo) {
  async function get(): Promise<StoredSteps> {
    const [last] = await repo.history(1);
    if (last) return last;
    await repo.add(1, '', usualSteps);
    return (await repo.history(1))[0]!;
  }

  return {
    get,
    async history(): Promise<StoredSteps[]> {
      await get();
      return repo.history(MOST_SHOWN);
    },
    /** @throws ProblemError STALE with what is there now */
    async write(revision: number, by: string, steps: StepLibrary): Promise<StoredSteps> {
      const current = await get();
      const written =
        current.revision === revision
          ? await repo.add(revision + 1, by, stepLibrarySchema.parse(steps))
          : null;
      if (written) return written;
      throw new ProblemError(
        'STALE',
        'The steps were changed in another window. Look at what is there now, and make your change again.',
        await get(),
      );
    },
  };
}
