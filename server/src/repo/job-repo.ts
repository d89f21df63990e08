import { randomUUID } from 'node:crypto';
import type { JobListItem, WrittenJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { JobResult } from '@wick/contract/job/result';
import type { JobSummary } from '@wick/plan/job/summary';
import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import type { PgUpdateSetSource } from 'drizzle-orm/pg-core';
import type { Database } from './database.ts';
import { createResultRepo } from './result-repo.ts';
import { jobs, results } from './tables.ts';

/** A document as it lies in the database: of whatever version it was written in. */
export interface KeptJob extends WrittenJob {
  readonly id: string;
  readonly document: unknown;
}

/** A document with what lists show of it. */
export interface JobToKeep {
  readonly document: Job;
  readonly summary: JobSummary;
}

type Row = typeof jobs.$inferSelect;
const kept = ({ id, revision, changedAt, document }: Row): KeptJob => ({
  id,
  revision,
  changedAt: changedAt.toISOString(),
  document,
});

/** What lists read: written beside the documents. */
const listed = {
  id: jobs.id,
  revision: jobs.revision,
  changedAt: jobs.changedAt,
  name: jobs.name,
  process: jobs.process,
  isArchived: jobs.isArchived,
  sketch: jobs.sketch,
  mouldId: jobs.mouldId,
  materialIds: jobs.materialIds,
  resultKey: jobs.resultKey,
  key: results.key,
  outcome: results.outcome,
};
type Listed = Pick<Row, Exclude<keyof typeof listed, 'key' | 'outcome'>> & {
  readonly key: string | null;
  readonly outcome: JobListItem['outcome'];
};

const listItem = ({ changedAt, sketch, resultKey, key, ...row }: Listed): JobListItem => ({
  ...row,
  changedAt: changedAt.toISOString(),
  sketch: sketch ?? { outline: [], holes: [], zones: [], feeds: [], vents: [] },
  isStale: row.outcome !== null && key !== resultKey,
});

export type JobRepo = ReturnType<typeof createJobRepo>;

export function createJobRepo(database: Database) {
  const isThere = (id: string) => and(eq(jobs.id, id), isNull(jobs.deletedAt));

  /** @returns whether the job was there */
  async function mark(id: string, values: PgUpdateSetSource<typeof jobs>): Promise<boolean> {
    const rows = await database.update(jobs).set(values).where(isThere(id)).returning({ id: jobs.id });
    return rows.length > 0;
  }

  return {
    /** Newest first. Reads what is written beside the documents, never the documents. */
    async list(): Promise<JobListItem[]> {
      const rows = await database
        .select(listed)
        .from(jobs)
        .leftJoin(results, and(eq(results.jobId, jobs.id), eq(results.layoutId, jobs.currentLayoutId)))
        .where(isNull(jobs.deletedAt))
        .orderBy(desc(jobs.changedAt));
      return rows.map(listItem);
    },

    async find(id: string): Promise<KeptJob | null> {
      const [row] = await database.select().from(jobs).where(isThere(id));
      return row ? kept(row) : null;
    },

    async add({ document, summary }: JobToKeep, known: readonly JobResult[] = []): Promise<KeptJob> {
      return database.transaction(async (on) => {
        const id = randomUUID();
        const [row] = await on
          .insert(jobs)
          .values({ id, revision: 1, document, ...summary })
          .returning();
        await createResultRepo(on).keep(id, known);
        return kept(row!);
      });
    },

    /** Null when the job has moved on from the revision (or is gone). */
    async replace(
      id: string,
      revision: number,
      { document, summary }: JobToKeep,
    ): Promise<WrittenJob | null> {
      const [row] = await database
        .update(jobs)
        .set({ document, ...summary, revision: revision + 1, changedAt: sql`now()` })
        .where(and(isThere(id), eq(jobs.revision, revision)))
        .returning({ revision: jobs.revision, changedAt: jobs.changedAt });
      return row ? { revision: row.revision, changedAt: row.changedAt.toISOString() } : null;
    },

    /** Every document, deleted ones too, rewritten or left (null): same revision, same time of change. */
    async rewriteAll(change: (document: unknown) => JobToKeep | null): Promise<number> {
      return database.transaction(async (on) => {
        const rows = await on.select({ id: jobs.id, document: jobs.document }).from(jobs);
        let count = 0;
        for (const { id, document } of rows) {
          const next = change(document);
          if (!next) continue;
          await on
            .update(jobs)
            .set({ document: next.document, ...next.summary })
            .where(eq(jobs.id, id));
          count += 1;
        }
        return count;
      });
    },

    setArchived: (id: string, isArchived: boolean): Promise<boolean> => mark(id, { isArchived }),
    remove: (id: string): Promise<boolean> => mark(id, { deletedAt: sql`now()` }),

    async restore(id: string): Promise<KeptJob | null> {
      const [row] = await database
        .update(jobs)
        .set({ deletedAt: null })
        .where(and(eq(jobs.id, id), isNotNull(jobs.deletedAt)))
        .returning();
      return row ? kept(row) : null;
    },

    async clearDeleted(before: Date): Promise<void> {
      await database.delete(jobs).where(lt(jobs.deletedAt, before));
    },
  };
}
