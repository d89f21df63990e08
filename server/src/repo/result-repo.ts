import type { JobResult } from '@wick/contract/job/result';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs, results } from './tables.ts';

export type ResultRepo = ReturnType<typeof createResultRepo>;

/** What was found of the layouts of jobs. */
export function createResultRepo(database: Pick<Database, 'select' | 'insert' | 'transaction'>) {
  async function keep(on: Pick<Database, 'insert'>, jobId: string, known: readonly JobResult[]) {
    if (known.length === 0) return;
    await on
      .insert(results)
      .values(known.map((result) => ({ jobId, ...result })))
      .onConflictDoUpdate({
        target: [results.jobId, results.layoutId],
        set: { key: sql`excluded.key`, outcome: sql`excluded.outcome` },
      });
  }

  return {
    async of(jobId: string): Promise<JobResult[]> {
      return database
        .select({ layoutId: results.layoutId, key: results.key, outcome: results.outcome })
        .from(results)
        .where(eq(results.jobId, jobId));
    },

    /** Each takes the place of an earlier one of its layout; all or none. */
    keep: (jobId: string, known: readonly JobResult[]) => keep(database, jobId, known),

    /** The same, while the job is at a revision. @returns false when it has moved on (or is gone) */
    keepAt(jobId: string, revision: number, known: readonly JobResult[]): Promise<boolean> {
      return database.transaction(async (on) => {
        const found = await on
          .select({ id: jobs.id })
          .from(jobs)
          .where(and(eq(jobs.id, jobId), eq(jobs.revision, revision), isNull(jobs.deletedAt)))
          .for('update');
        if (found.length === 0) return false;
        await keep(on, jobId, known);
        return true;
      });
    },
  };
}
