import { randomUUID } from 'node:crypto';
import type { JobListItem, StoredJob, VerdictSummary } from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import { migrateJob } from '@wick/contract/job-migrations';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs } from './tables.ts';

type Row = typeof jobs.$inferSelect;
/** Documents are kept in the version they were written in, and brought up to date when read. */
const stored = ({ id, revision, changedAt, document }: Row): StoredJob => ({
  id,
  revision,
  changedAt: changedAt.toISOString(),
  document: migrateJob({ ...document }) as Job,
});

export type JobRepo = ReturnType<typeof createJobRepo>;

export function createJobRepo(database: Database) {
  return {
    async list(): Promise<JobListItem[]> {
      const rows = await database.select().from(jobs).orderBy(desc(jobs.changedAt));
      return rows.map(({ id, revision, changedAt, document, verdict }) => ({
        id,
        revision,
        changedAt: changedAt.toISOString(),
        name: document.name,
        process: document.process,
        outline: document.part.outline,
        verdict,
      }));
    },

    async find(id: string): Promise<StoredJob | null> {
      const [row] = await database.select().from(jobs).where(eq(jobs.id, id));
      return row ? stored(row) : null;
    },

    async add(document: Job, verdict: VerdictSummary | null = null): Promise<StoredJob> {
      const [row] = await database
        .insert(jobs)
        .values({ id: randomUUID(), revision: 1, document, verdict })
        .returning();
      return stored(row!);
    },

    /** Null when the job has moved on from the revision (or is gone). */
    async replace(id: string, revision: number, document: Job): Promise<StoredJob | null> {
      const [row] = await database
        .update(jobs)
        .set({ document, revision: revision + 1, changedAt: sql`now()` })
        .where(and(eq(jobs.id, id), eq(jobs.revision, revision)))
        .returning();
      return row ? stored(row) : null;
    },

    /** Kept only if it belongs to the current revision. */
    async setVerdict(id: string, verdict: VerdictSummary): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ verdict })
        .where(and(eq(jobs.id, id), eq(jobs.revision, verdict.revision)))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    async remove(id: string): Promise<boolean> {
      const rows = await database.delete(jobs).where(eq(jobs.id, id)).returning({ id: jobs.id });
      return rows.length > 0;
    },
  };
}
