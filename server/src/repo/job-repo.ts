import { randomUUID } from 'node:crypto';
import type { WrittenJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { JobResult } from '@wick/contract/job/result';
import type { JobSummary } from '@wick/plan/job/summary';
import { and, desc, eq, gte, inArray, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { createJobList } from './job-list.ts';
import { createResultRepo } from './result-repo.ts';
import { isKept } from './kept-revisions.ts';
import { jobRevisions, jobs, moulds } from './tables.ts';

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

/** A state that a job has been in. */
export interface KeptRevision {
  readonly revision: number;
  readonly changedAt: string;
}

/** The mould that a job was being put on is not there. */
export class MouldGoneError extends Error {}

/** A job that is written anew each time it is being rewritten is left to its writers: they keep it up to date. */
const TRIES = 5;
/** Jobs cleared of revisions at once in so many writes. */
const THIN_EVERY = 8;

export type JobRepo = ReturnType<typeof createJobRepo>;
type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

export function createJobRepo(database: Database) {
  const isThere = (id: string) => and(eq(jobs.id, id), isNull(jobs.deletedAt));
  const isAt = (id: string, revision: number) => and(isThere(id), eq(jobs.revision, revision));

  /** A job that is put on another mould holds it until both are written. @throws MouldGoneError */
  async function requireMould(on: Connection, id: string, mouldId: string | null) {
    if (mouldId === null) return;
    const [was] = await on.select({ mouldId: jobs.mouldId }).from(jobs).where(isThere(id));
    if (!was || was.mouldId === mouldId) return;
    const found = await on.select({ id: moulds.id }).from(moulds).where(eq(moulds.id, mouldId)).for('share');
    if (found.length === 0) throw new MouldGoneError();
  }

  /** Earlier states are kept close together near the present, and further apart before. */
  async function thin(on: Connection, id: string, newest: number) {
    if (newest % THIN_EVERY !== 0) return;
    const known = await on
      .select({ revision: jobRevisions.revision })
      .from(jobRevisions)
      .where(eq(jobRevisions.jobId, id));
    const dropped = known.map(({ revision }) => revision).filter((revision) => !isKept(revision, newest));
    if (dropped.length > 0)
      await on
        .delete(jobRevisions)
        .where(and(eq(jobRevisions.jobId, id), inArray(jobRevisions.revision, dropped)));
  }

  return {
    ...createJobList(database),

    /** Empty where there is none. */
    async nameOf(id: string): Promise<string> {
      const [row] = await database.select({ name: jobs.name }).from(jobs).where(isThere(id));
      return row?.name ?? '';
    },

    async isThere(id: string): Promise<boolean> {
      const rows = await database.select({ id: jobs.id }).from(jobs).where(isThere(id));
      return rows.length > 0;
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
          .values({ id, revision: 1, document, ...summary, changedAt: sql`clock_timestamp()` })
          .returning();
        await createResultRepo(on).keep(id, known);
        return kept(row!);
      });
    },

    /**
     * What the job was goes to its earlier states. Null when the job has moved on from the revision (or is gone).
     * @throws MouldGoneError where the job is put on a mould that is not in the list, unless it may lack it
     */
    async replace(
      id: string,
      revision: number,
      { document, summary }: JobToKeep,
      { mayLackMould = false } = {},
    ): Promise<WrittenJob | null> {
      return database.transaction(async (on) => {
        if (!mayLackMould) await requireMould(on, id, summary.mouldId);
        const before = on
          .select({
            jobId: jobs.id,
            revision: jobs.revision,
            changedAt: jobs.changedAt,
            document: sql<unknown>`${jobs.document}`.as('document'),
          })
          .from(jobs)
          .where(isAt(id, revision))
          .for('update');
        const kept = await on
          .insert(jobRevisions)
          .select(before)
          .onConflictDoUpdate({
            target: [jobRevisions.jobId, jobRevisions.revision],
            set: { document: sql`excluded.document` },
          })
          .returning({ revision: jobRevisions.revision });
        if (kept.length === 0) return null;
        const [row] = await on
          .update(jobs)
          .set({ document, ...summary, revision: revision + 1, changedAt: sql`now()` })
          .where(isAt(id, revision))
          .returning({ revision: jobs.revision, changedAt: jobs.changedAt });
        await thin(on, id, revision + 1);
        return row ? { revision: row.revision, changedAt: row.changedAt.toISOString() } : null;
      });
    },

    /** Earlier states, newest first. */
    async revisions(id: string): Promise<KeptRevision[]> {
      const rows = await database
        .select({ revision: jobRevisions.revision, changedAt: jobRevisions.changedAt })
        .from(jobRevisions)
        .where(eq(jobRevisions.jobId, id))
        .orderBy(desc(jobRevisions.revision));
      return rows.map(({ revision, changedAt }) => ({ revision, changedAt: changedAt.toISOString() }));
    },

    /** An earlier state's document, of whatever version it was written in. */
    async findRevision(id: string, revision: number): Promise<KeptJob | null> {
      const [row] = await database
        .select()
        .from(jobRevisions)
        .where(and(eq(jobRevisions.jobId, id), eq(jobRevisions.revision, revision)));
      return row ? { id, revision, changedAt: row.changedAt.toISOString(), document: row.document } : null;
    },

    /**
     * Documents one by one, deleted ones too, rewritten or left (null): same revision, same time of change. Nothing is held
     * meanwhile; one that was written while it was being rewritten is taken again.
     */
    async rewriteAll(
      change: (document: unknown) => Promise<JobToKeep | null>,
      { exceptVersion }: { exceptVersion?: number } = {},
    ): Promise<number> {
      const meant =
        exceptVersion === undefined
          ? undefined
          : ne(sql`coalesce(${jobs.document}->>'version', '')`, String(exceptVersion));
      /** Null where it has moved on. */
      async function rewrite(id: string): Promise<boolean | null> {
        const [row] = await database
          .select({ document: jobs.document, revision: jobs.revision })
          .from(jobs)
          .where(eq(jobs.id, id));
        const next = row && (await change(row.document));
        if (!next) return false;
        const rows = await database
          .update(jobs)
          .set({ document: next.document, ...next.summary })
          .where(and(eq(jobs.id, id), eq(jobs.revision, row.revision)))
          .returning({ id: jobs.id });
        return rows.length > 0 || null;
      }
      let count = 0;
      for (const { id } of await database.select({ id: jobs.id }).from(jobs).where(meant)) {
        let isRewritten: boolean | null = null;
        for (let n = 0; n < TRIES && isRewritten === null; n++) isRewritten = await rewrite(id);
        if (isRewritten) count += 1;
      }
      return count;
    },

    /** @returns false when the job has moved on from the revision (or is gone) */
    async setArchived(id: string, revision: number, isArchived: boolean): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ isArchived })
        .where(isAt(id, revision))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    /** @returns false when the job has moved on from the revision (or is gone) */
    async remove(id: string, revision: number): Promise<boolean> {
      const rows = await database
        .update(jobs)
        .set({ deletedAt: sql`now()`, deletedDays: 0 })
        .where(isAt(id, revision))
        .returning({ id: jobs.id });
      return rows.length > 0;
    },

    async restore(id: string): Promise<KeptJob | null> {
      const [row] = await database
        .update(jobs)
        .set({ deletedAt: null })
        .where(and(eq(jobs.id, id), isNotNull(jobs.deletedAt)))
        .returning();
      return row ? kept(row) : null;
    },

    /** One more day of use has passed; what has been deleted for so many is cleared away. */
    async passDay(keepDays: number): Promise<void> {
      await database.transaction(async (on) => {
        await on
          .update(jobs)
          .set({ deletedDays: sql`${jobs.deletedDays} + 1` })
          .where(isNotNull(jobs.deletedAt));
        await on.delete(jobs).where(and(isNotNull(jobs.deletedAt), gte(jobs.deletedDays, keepDays)));
      });
    },
  };
}
