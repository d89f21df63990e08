import type { StoredSteps } from '@wick/contract/api';
import type { StepLibrary } from '@wick/contract/steps';
import { desc } from 'drizzle-orm';
import type { Database } from './database.ts';
import { stepLibraries } from './tables.ts';

export type StepRepo = ReturnType<typeof createStepRepo>;

/** The workshop's library of steps, revision after revision. */
export function createStepRepo(database: Database) {
  const asStored = (row: typeof stepLibraries.$inferSelect): StoredSteps => ({
    ...row,
    changedAt: row.changedAt.toISOString(),
  });

  return {
    /** Newest first. */
    async history(most: number): Promise<StoredSteps[]> {
      const rows = await database
        .select()
        .from(stepLibraries)
        .orderBy(desc(stepLibraries.revision))
        .limit(most);
      return rows.map(asStored);
    },

    /** @returns null where there is that revision already */
    async add(revision: number, by: string, steps: StepLibrary): Promise<StoredSteps | null> {
      const [row] = await database
        .insert(stepLibraries)
        .values({ revision, by, steps })
        .onConflictDoNothing()
        .returning();
      return row ? asStored(row) : null;
    },
  };
}
