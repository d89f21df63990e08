import type { Entry, NewEntry, NewRun, Run } from '@wick/contract/run/run';
import type { RunPlan } from '@wick/contract/run/plan';
import { and, asc, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { entries, runPlans, runs } from './tables.ts';

export type RunRepo = ReturnType<typeof createRunRepo>;

const asRun = (row: typeof runs.$inferSelect): Run => ({
  ...row,
  startedAt: row.startedAt.toISOString(),
  endedAt: row.endedAt?.toISOString() ?? null,
});
const asEntry = (row: typeof entries.$inferSelect): Entry => ({
  ...row,
  at: row.at.toISOString(),
  writtenAt: row.writtenAt.toISOString(),
});

const asPlan = ({ plan, number, takenAt }: typeof runPlans.$inferSelect): RunPlan => ({
  ...plan,
  number,
  takenAt: takenAt.toISOString(),
});

/** Runs of jobs, and what happened in them. */
export function createRunRepo(database: Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update'>) {
  return {
    /** Of a job, newest first. */
    async listOf(jobId: string): Promise<Run[]> {
      const rows = await database.select().from(runs).where(eq(runs.jobId, jobId)).orderBy(desc(runs.number));
      return rows.map(asRun);
    },

    async find(id: string): Promise<Run | null> {
      const [row] = await database.select().from(runs).where(eq(runs.id, id));
      return row ? asRun(row) : null;
    },

    /** Numbered after those of its job. @returns null where there is one of that id */
    async add(jobId: string, run: NewRun): Promise<Run | null> {
      const number = sql`(select coalesce(max(${runs.number}), 0) + 1 from ${runs} where ${runs.jobId} = ${jobId})`;
      const [row] = await database
        .insert(runs)
        .values({ ...run, jobId, number: number as unknown as number })
        .onConflictDoNothing({ target: runs.id })
        .returning();
      return row ? asRun(row) : null;
    },

    /** One that was made elsewhere, with its plan and all that was said of it; for a database that has none of it. */
    async addMade(
      run: NewRun & { readonly jobId: string; readonly number: number; readonly startedAt: string },
      plan: Omit<RunPlan, 'number' | 'takenAt'>,
      said: readonly NewEntry[],
    ): Promise<void> {
      const startedAt = new Date(run.startedAt);
      await database.insert(runs).values({ ...run, startedAt });
      await database.insert(runPlans).values({ runId: run.id, number: 1, plan, takenAt: startedAt });
      await database.insert(entries).values(
        said.map(({ id, at, by, body }) => ({
          ...{ id, runId: run.id, at: new Date(at), writtenAt: new Date(at), by, device: 'demo', body },
        })),
      );
    },

    /** @returns null where there is none, or it had ended */
    async end(id: string): Promise<Run | null> {
      const [row] = await database
        .update(runs)
        .set({ endedAt: sql`now()` })
        .where(and(eq(runs.id, id), isNull(runs.endedAt)))
        .returning();
      return row ? asRun(row) : null;
    },

    /** Those known by their id stay as they are. @returns all that were sent as they are kept, and which of them are new */
    async append(
      runId: string,
      device: string,
      sent: readonly NewEntry[],
    ): Promise<{ kept: Entry[]; added: Entry[] }> {
      const added = await database
        .insert(entries)
        .values(sent.map(({ id, at, by, body }) => ({ id, runId, at: new Date(at), by, device, body })))
        .onConflictDoNothing()
        .returning();
      const ids = sent.map(({ id }) => id);
      const kept = await database
        .select()
        .from(entries)
        .where(and(eq(entries.runId, runId), inArray(entries.id, ids)))
        .orderBy(asc(entries.order));
      return { kept: kept.map(asEntry), added: added.map(asEntry).sort((a, b) => a.order - b.order) };
    },

    async entriesOf(runId: string): Promise<Entry[]> {
      const rows = await database
        .select()
        .from(entries)
        .where(eq(entries.runId, runId))
        .orderBy(asc(entries.order));
      return rows.map(asEntry);
    },

    /** Of all runs, those that came in after another, oldest first. */
    async entriesAfter(order: number, most: number): Promise<Entry[]> {
      const rows = await database
        .select()
        .from(entries)
        .where(gt(entries.order, order))
        .orderBy(asc(entries.order))
        .limit(most);
      return rows.map(asEntry);
    },

    /** 0 where there is none. */
    async lastOrder(): Promise<number> {
      const [row] = await database.select({ last: sql<string | null>`max(${entries.order})` }).from(entries);
      return Number(row?.last ?? 0);
    },

    /** That have not ended, the oldest first. */
    async openRehearsals(): Promise<Run[]> {
      const isOpen = and(eq(runs.kind, 'rehearsal'), isNull(runs.endedAt));
      return (await database.select().from(runs).where(isOpen).orderBy(asc(runs.startedAt))).map(asRun);
    },

    /** Runs that have an entry of one of these kinds and have not ended. */
    async openWith(...kinds: readonly string[]): Promise<Run[]> {
      const rows = await database
        .selectDistinct({ run: runs })
        .from(runs)
        .innerJoin(entries, eq(entries.runId, runs.id))
        .where(and(isNull(runs.endedAt), inArray(sql`${entries.body}->>'kind'`, [...kinds])));
      return rows.map(({ run }) => asRun(run));
    },

    async lastPlan(runId: string): Promise<RunPlan | null> {
      const [row] = await database
        .select()
        .from(runPlans)
        .where(eq(runPlans.runId, runId))
        .orderBy(desc(runPlans.number))
        .limit(1);
      return row ? asPlan(row) : null;
    },

    /** @returns null where the run has one of that number already */
    async addPlan(
      runId: string,
      number: number,
      plan: Omit<RunPlan, 'number' | 'takenAt'>,
    ): Promise<RunPlan | null> {
      const [row] = await database
        .insert(runPlans)
        .values({ runId, number, plan })
        .onConflictDoNothing()
        .returning();
      return row ? asPlan(row) : null;
    },
  };
}
