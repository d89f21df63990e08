import type { JobResult } from '@wick/contract/job/result';
import { eq, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { results } from './tables.ts';

export type ResultRepo = ReturnType<typeof createResultRepo>;

/** What was found of the layouts of jobs. */
export function createResultRepo(database: Pick<Database, 'select' | 'insert'>) {
  return {
    async of(jobId: string): Promise<JobResult[]> {
      return database
        .select({ layoutId: results.layoutId, key: results.key, outcome: results.outcome })
        .from(results)
        .where(eq(results.jobId, jobId));
    },

    /** Each takes the place of an earlier one of its layout; all or none. */
    async keep(jobId: string, known: readonly JobResult[]): Promise<void> {
      if (known.length === 0) return;
      await database
        .insert(results)
        .values(known.map((result) => ({ jobId, ...result })))
        .onConflictDoUpdate({
          target: [results.jobId, results.layoutId],
          set: { key: sql`excluded.key`, outcome: sql`excluded.outcome` },
        });
    },
  };
}
