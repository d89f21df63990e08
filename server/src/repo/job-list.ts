import { jobListItemSchema, type JobListItem } from '@wick/contract/api';
import { and, desc, eq, isNull, sql, type SQL } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs, results } from './tables.ts';

type Row = typeof jobs.$inferSelect;

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
type Listed = Omit<Pick<Row, Exclude<keyof typeof listed, 'key' | 'outcome'>>, 'changedAt'> & {
  readonly changedAt: string;
  readonly key: string | null;
  readonly outcome: JobListItem['outcome'];
};

/** A row as one text: of thousands of rows most of the time goes into taking them apart and handing them on, value by value. */
const listedRow = sql<string>`json_build_object(${sql.join(
  Object.entries(listed).map(([name, column]) => sql`${sql.raw(`'${name}'`)}, ${column}`),
  sql`, `,
)})::text`;

const itemOf = ({ row }: { row: string }): JobListItem => listItem(JSON.parse(row) as Listed);

const NO_SKETCH: JobListItem['sketch'] = { outline: [], holes: [], zones: [], feeds: [], vents: [] };

function listItem({ changedAt, sketch, resultKey, key, ...row }: Listed): JobListItem {
  const item: JobListItem = {
    ...row,
    changedAt: new Date(changedAt).toISOString(),
    sketch: sketch ?? NO_SKETCH,
    isStale: row.outcome !== null && key !== resultKey,
    isDamaged: false,
  };
  return jobListItemSchema.safeParse(item).success ? item : damagedItem(row.id, item);
}

/** A place in the list for what cannot be read of a job. */
const damagedItem = (id: string, known: Partial<JobListItem> = {}): JobListItem => ({
  id,
  revision: Number.isInteger(known.revision) ? known.revision! : 1,
  changedAt: known.changedAt ?? new Date(0).toISOString(),
  name: typeof known.name === 'string' && known.name !== '' ? known.name : 'A job that cannot be read',
  process: 'infusion',
  isArchived: false,
  sketch: NO_SKETCH,
  mouldId: null,
  materialIds: [],
  outcome: null,
  isStale: false,
  isDamaged: true,
});

/** The list of jobs, newest first. Reads what is written beside the documents, never the documents. */
export function createJobList(database: Pick<Database, 'select'>) {
  const listedWhere = (which?: SQL) =>
    database
      .select({ row: listedRow })
      .from(jobs)
      .leftJoin(results, and(eq(results.jobId, jobs.id), eq(results.layoutId, jobs.currentLayoutId)))
      .where(and(isNull(jobs.deletedAt), which))
      .orderBy(desc(jobs.changedAt));

  async function ids(): Promise<string[]> {
    const rows = await database
      .select({ id: jobs.id })
      .from(jobs)
      .where(isNull(jobs.deletedAt))
      .orderBy(desc(jobs.changedAt));
    return rows.map(({ id }) => id);
  }

  return {
    async list(): Promise<JobListItem[]> {
      try {
        return (await listedWhere()).map(itemOf);
      } catch (error) {
        // One that cannot be read hides none of the others; where none can, that is said.
        const all = await ids().catch(() => {
          throw error;
        });
        const items = all.map(
          async (id) => (await listedWhere(eq(jobs.id, id))).map(itemOf)[0] ?? damagedItem(id),
        );
        return Promise.all(items.map((item, n) => item.catch(() => damagedItem(all[n]!))));
      }
    },

    ids,
  };
}
