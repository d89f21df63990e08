import type { BookLine, OpenLesson } from '@wick/contract/review';
import type { EntryBody } from '@wick/contract/run/run';
import { and, asc, desc, eq, inArray, isNull, notExists, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Database } from './database.ts';
import { entries, jobs, runs } from './tables.ts';

export type BookRepo = ReturnType<typeof createBookRepo>;

type Booked = Extract<EntryBody, { kind: 'booked' }>;
type LessonBody = Extract<EntryBody, { kind: 'lesson' }>;

/** Open lessons that are read at once at most. */
const MOST_LESSONS = 500;

/** The shop's book: what was said last of every part that was reviewed. Reads entries of its kinds only, which have an index. */
export function createBookRepo(database: Database) {
  const kindOf = (kind: EntryBody['kind']): SQL => sql`${entries.body}->>'kind' = ${kind}`;
  const other = alias(entries, 'other');
  /** No entry of a kind names this one. */
  const isUnnamed = (kind: EntryBody['kind'], field: string) =>
    notExists(
      database
        .select({ one: sql`1` })
        .from(other)
        .where(
          and(
            eq(other.runId, entries.runId),
            sql`${other.body}->>'kind' = ${kind}`,
            sql`${other.body}->>${field}::text = ${entries.id}`,
          ),
        ),
    );
  const stands = isUnnamed('struck', 'entryId');

  return {
    /** Oldest first; each run once, by its last word. */
    async list(kinds: readonly BookLine['kind'][]): Promise<BookLine[]> {
      const rows = await database
        .selectDistinctOn([entries.runId], {
          ...{ runId: runs.id, jobId: jobs.id, jobName: jobs.name, number: runs.number, kind: runs.kind },
          ...{ startedAt: runs.startedAt, bookedAt: entries.at, by: entries.by },
          // What a list needs of it: the rows of the record stay where they are.
          figures: sql<Booked['figures']>`${entries.body}->'figures'`,
          evidence: sql<Booked['evidence']>`${entries.body}->'evidence'`,
        })
        .from(entries)
        .innerJoin(runs, eq(runs.id, entries.runId))
        .innerJoin(jobs, eq(jobs.id, runs.jobId))
        .where(and(kindOf('booked'), isNull(jobs.deletedAt), inArray(runs.kind, [...kinds]), stands))
        .orderBy(asc(entries.runId), desc(entries.at), desc(entries.order));
      return rows
        .map(({ startedAt, bookedAt, ...row }) => ({
          ...row,
          startedAt: startedAt.toISOString(),
          bookedAt: bookedAt.toISOString(),
        }))
        .sort((a, b) => a.startedAt.localeCompare(b.startedAt) || a.runId.localeCompare(b.runId));
    },

    /** Of parts, newest first: those that nobody has taken or set aside. */
    async openLessons(): Promise<OpenLesson[]> {
      const isOpen = isUnnamed('lessonSettled', 'lessonId');
      const rows = await database
        .select({
          ...{ lessonId: entries.id, runId: runs.id, jobId: jobs.id, jobName: jobs.name },
          ...{ number: runs.number, at: entries.at, body: entries.body },
          ...{ mouldId: jobs.mouldId, process: jobs.process, materialIds: jobs.materialIds },
        })
        .from(entries)
        .innerJoin(runs, eq(runs.id, entries.runId))
        .innerJoin(jobs, eq(jobs.id, runs.jobId))
        .where(and(kindOf('lesson'), isNull(jobs.deletedAt), eq(runs.kind, 'part'), isOpen, stands))
        .orderBy(desc(entries.at))
        .limit(MOST_LESSONS);
      return rows.map(({ body, at, ...row }) => {
        const { target, text, change, amount } = body as LessonBody;
        return { ...row, at: at.toISOString(), target, text, change, amount };
      });
    },
  };
}
