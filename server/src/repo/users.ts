import { and, isNull, type SQL } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs } from './tables.ts';

/** Names of jobs that stand in the way. */
export type UsedBy = readonly string[];

/** Jobs of which something holds, deleted ones aside. */
export async function usersOf(on: Pick<Database, 'select'>, isMeant: SQL): Promise<UsedBy> {
  const rows = await on
    .select({ name: jobs.name })
    .from(jobs)
    .where(and(isMeant, isNull(jobs.deletedAt)))
    .orderBy(jobs.name);
  return rows.map(({ name }) => name);
}
