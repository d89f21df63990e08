import { randomUUID } from 'node:crypto';
import type { JobListItem, StoredJob, VerdictSummary } from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import { migrateJob } from '@wick/contract/job-migrations';
import { planSketchOf } from '@wick/contract/plan-sketch';
import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
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

const listed = (row: Row): JobListItem => {
  const { id, revision, changedAt, document } = stored(row);
  return {
    id,
    revision,
    changedAt,
    name: document.name,
    process: document.process,
    isArchived: row.isArchived,
    sketch: planSketchOf(document),
    mouldId: document.mould?.id ?? null,
    materialIds: document.materials.map((material) => material.id),
    verdict: row.verdict,
  };
};

export type JobRepo = ReturnType<typeof createJobRepo>;

export function createJobRepo(database: Database) {
  const isThere = (id: string) => and(eq(jobs.id, id), isNull(jobs.deletedAt));
  return {
    async list(): Promise<JobListItem[]> {
      const rows = await database
        .select()
        .from(jobs)
        .where(isNull(jobs.deletedAt))
        .orderBy(desc(jobs.changedAt));
      return rows.map(listed);
    },

    async find(id: string): Promise<StoredJob | null> {
      const [row] = await database.select().from(jobs).where(isThere(id));
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
        .where(and(isThere(id), eq(jobs.revision, revision)))
        .returning();
      return row ? stored(row) : null;
    },

    /** Kept only if it belongs to the current revision. */
    async setVerdict(id: string, verdict: VerdictSummary): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ verdict })
        .where(and(isThere(id), eq(jobs.revision, verdict.revision)))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    async setArchived(id: string, isArchived: boolean): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ isArchived })
        .where(isThere(id))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    /** It stays on disk until clearDeleted; restore brings it back. */
    async remove(id: string): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ deletedAt: sql`now()` })
        .where(isThere(id))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    async restore(id: string): Promise<StoredJob | null> {
      const [row] = await database
        .update(jobs)
        .set({ deletedAt: null })
        .where(and(eq(jobs.id, id), isNotNull(jobs.deletedAt)))
        .returning();
      return row ? stored(row) : null;
    },

    async clearDeleted(before: Date): Promise<void> {
      await database.delete(jobs).where(lt(jobs.deletedAt, before));
    },
  };
}
