import { LONGEST_TITLE, MOST_DIFFERENCES } from '@wick/contract/run/card-bodies';
import type { RunPlan } from '@wick/contract/run/plan';
import { shopSchema } from '@wick/contract/shop';
import { differencesOf } from '@wick/plan/job/differences';
import type { RunRepo } from '../../repo/run-repo.ts';
import { ProblemError } from '../problem.ts';
import type { JobReader } from '../reading/job-reader.ts';
import type { RunService } from './run-service.ts';

export type RunPlans = ReturnType<typeof createRunPlans>;
type Frozen = Omit<RunPlan, 'number' | 'takenAt'>;

/** What runs are made by: frozen when they begin, and again only where somebody takes a newer plan. */
export function createRunPlans(parts: {
  readonly repo: Pick<RunRepo, 'lastPlan' | 'addPlan'>;
  readonly runs: Pick<RunService, 'find' | 'say' | 'now'>;
  /** Of a job, everything as it is now. */
  readonly about: (jobId: string) => Promise<Frozen>;
  readonly reader: Pick<JobReader, 'read'>;
}) {
  const { repo, runs, about, reader } = parts;

  /** A plan of an earlier version of the program is brought up to date as it is read. */
  async function readable(plan: RunPlan): Promise<RunPlan> {
    const read = await reader.read(plan.job);
    if (read.ok) return { ...plan, job: read.value, shop: shopSchema.parse(plan.shop) };
    throw new ProblemError(
      read.code,
      `The plan that this run follows does not hang together. ${read.message}`,
    );
  }

  /** The plan a run follows; one that has none yet takes the job as it is. @throws ProblemError NOT_FOUND */
  async function planOf(runId: string): Promise<RunPlan> {
    const run = await runs.find(runId);
    const last =
      (await repo.lastPlan(runId)) ??
      (await repo.addPlan(runId, 1, await about(run.jobId))) ??
      (await repo.lastPlan(runId));
    return readable(last!);
  }

  return {
    planOf,

    /** Goes on by the job as it is now. @throws ProblemError NOT_FOUND, STALE where that is another than was looked at */
    async take(runId: string, jobRevision: number): Promise<RunPlan> {
      const before = await planOf(runId);
      if (before.jobRevision === jobRevision) return before;
      const run = await runs.find(runId);
      const next = await about(run.jobId);
      if (next.jobRevision !== jobRevision)
        throw new ProblemError(
          'STALE',
          'The job has been changed again since. Look at the differences once more, then take it.',
        );
      const added = await repo.addPlan(runId, before.number + 1, next);
      if (!added) return planOf(runId);
      const differences = differencesOf(before.job, next.job)
        .map(({ where, what }) => [where, what].filter(Boolean).join(': ').slice(0, LONGEST_TITLE))
        .slice(0, MOST_DIFFERENCES);
      await runs.say(
        run,
        runs.now(run),
        { kind: 'planTaken', number: added.number, differences },
        `plan-${added.number}`,
      );
      return readable(added);
    },
  };
}
