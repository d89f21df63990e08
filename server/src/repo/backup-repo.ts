import { and, asc, getTableColumns, gt, notInArray, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Database } from './database.ts';
import { sumUpReadings } from './reading-repo.ts';
import {
  entries,
  facts,
  instruments,
  jobRevisions,
  jobs,
  materialHistory,
  materials,
  moulds,
  readings,
  photos,
  results,
  runPlans,
  runs,
  shop,
  stepLibraries,
} from './tables.ts';

type Row = Readonly<Record<string, unknown>>;
type Connection = Pick<Database, 'select' | 'insert' | 'execute'>;

/** Facts that belong to this installation and not to its records: who is let in. */
const OWN_FACTS = ['passPhrase'];

interface BackedUp {
  readonly table: PgTable;
  readonly order: readonly PgColumn[];
  readonly where?: SQL;
  /** Rows at once: they are small. */
  readonly batch?: number;
}

/** Everything but who is let in, in an order in which each finds what it refers to. */
const backedUp: Readonly<Record<string, BackedUp>> = {
  shop: { table: shop, order: [shop.id] },
  materials: { table: materials, order: [materials.id] },
  materialHistory: { table: materialHistory, order: [materialHistory.order] },
  moulds: { table: moulds, order: [moulds.id] },
  jobs: { table: jobs, order: [jobs.id] },
  jobRevisions: { table: jobRevisions, order: [jobRevisions.jobId, jobRevisions.revision] },
  results: { table: results, order: [results.jobId, results.layoutId] },
  runs: { table: runs, order: [runs.id] },
  runPlans: { table: runPlans, order: [runPlans.runId, runPlans.number] },
  photos: { table: photos, order: [photos.runId, photos.id] },
  stepLibraries: { table: stepLibraries, order: [stepLibraries.revision] },
  entries: { table: entries, order: [entries.order] },
  instruments: { table: instruments, order: [instruments.number] },
  /** Their sums are made anew. */
  readings: { table: readings, order: [readings.order], batch: 2000 },
  facts: { table: facts, order: [facts.name], where: notInArray(facts.name, OWN_FACTS) },
};

/** Rows at once where nothing else is said: a job may hold megabytes. */
const BATCH = 50;

export type BackupRepo = ReturnType<typeof createBackupRepo>;

/** All records as rows, and back. */
export function createBackupRepo(database: Database) {
  return {
    /** Every row of every table as it was at one moment. */
    async readAll(onRow: (table: string, row: Row) => void): Promise<void> {
      await database.transaction(
        async (on) => {
          for (const [name, one] of Object.entries(backedUp))
            await eachRow(on, one, (row) => onRow(name, row));
        },
        { isolationLevel: 'repeatable read', accessMode: 'read only' },
      );
    },

    /** Whether nothing is kept here yet. */
    async isEmpty(): Promise<boolean> {
      for (const { table } of Object.values(backedUp))
        if (
          (
            await database
              .select({ one: sql`1` })
              .from(table)
              .limit(1)
          ).length > 0
        )
          return false;
      return true;
    },

    /** Takes all rows up, or none. @param rows each table's, as they were written; of unknown tables nothing is taken */
    async writeAll(rows: AsyncIterable<readonly [table: string, row: Row]>): Promise<void> {
      await database.transaction(async (on) => {
        let [current, held]: [BackedUp | undefined, Row[]] = [undefined, []];
        const write = async () => {
          if (current && held.length > 0) await on.insert(current.table).values(held);
          held = [];
        };
        for await (const [name, row] of rows) {
          const known = backedUp[name];
          if (known !== current || held.length >= (known?.batch ?? 1)) await write();
          current = known;
          if (known) held.push(revived(known.table, row));
        }
        await write();
        await sumUpReadings(on);
        await goOnCounting(on);
      });
    },
  };
}

/** By the first column of its order where rows come in batches of their own, so that a million are not counted over again. */
async function eachRow(
  on: Connection,
  { table, order, where, batch }: BackedUp,
  onRow: (row: Row) => void,
): Promise<void> {
  const [first] = order;
  const size = batch ?? BATCH;
  let last: unknown = null;
  for (let from = 0; ; from += size) {
    const onward = batch !== undefined && last !== null ? gt(first!, last) : undefined;
    const rows: Row[] = await on
      .select()
      .from(table)
      .where(and(where, onward))
      .orderBy(...order.map((column) => asc(column)))
      .limit(size)
      .offset(onward || batch !== undefined ? 0 : from);
    for (const row of rows) onRow(row);
    if (rows.length < size) return;
    last = rows.at(-1)![first!.name];
  }
}

/** Times are texts in a file. */
function revived(table: PgTable, row: Row): Row {
  const columns = getTableColumns(table) as Record<string, PgColumn>;
  return Object.fromEntries(
    Object.entries(columns)
      .filter(([name]) => name in row)
      .map(([name, { dataType }]) => {
        const value = row[name];
        return [name, dataType === 'date' && typeof value === 'string' ? new Date(value) : value];
      }),
  );
}

/** Columns that the database counts up by itself. */
const COUNTED = [
  ['material_history', 'order'],
  ['entries', 'order'],
  ['readings', 'order'],
  ['instruments', 'number'],
] as const;

async function goOnCounting(on: Connection) {
  for (const [table, column] of COUNTED)
    await on.execute(
      sql`select setval(pg_get_serial_sequence(${table}, ${column}), (select coalesce(max(${sql.identifier(column)}), 0) + 1 from ${sql.identifier(table)}), false)`,
    );
}

/** What is kept of every table is read once, by its rows and by its indexes. @throws what the database says of damage */
export async function readThrough(database: Database): Promise<void> {
  for (const { table, order, batch } of Object.values(backedUp)) {
    // Every page is read, and what is kept apart from its row; many small rows have nothing apart.
    const what = batch === undefined ? sql`sum(length(${table}::text))` : sql`count(*)`;
    await database.execute(sql`select ${what} from ${table}`);
    await database.transaction(async (on) => {
      await on.execute(sql`set local enable_seqscan = off`);
      await on.execute(
        sql`select count(*) from (select ${order[0]!} from ${table} order by ${order[0]!}) as all_of_it`,
      );
    });
  }
}
