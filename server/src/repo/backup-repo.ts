import { asc, getTableColumns, notInArray, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Database } from './database.ts';
import { facts, jobRevisions, jobs, materialHistory, materials, moulds, results, shop } from './tables.ts';

type Row = Readonly<Record<string, unknown>>;
type Connection = Pick<Database, 'select' | 'insert' | 'execute'>;

/** Facts that belong to this installation and not to its records: who is let in. */
const OWN_FACTS = ['passPhrase'];

interface BackedUp {
  readonly table: PgTable;
  readonly order: readonly PgColumn[];
  readonly where?: SQL;
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
  facts: { table: facts, order: [facts.name], where: notInArray(facts.name, OWN_FACTS) },
};

/** Rows at once: a job may hold megabytes. */
const BATCH = 50;

export type BackupRepo = ReturnType<typeof createBackupRepo>;

/** All records as rows, and back. */
export function createBackupRepo(database: Database) {
  return {
    /** Every row of every table as it was at one moment. */
    async readAll(onRow: (table: string, row: Row) => void): Promise<void> {
      await database.transaction(
        async (on) => {
          for (const [name, { table, order, where }] of Object.entries(backedUp))
            for (let from = 0; ; from += BATCH) {
              const rows = await on
                .select()
                .from(table)
                .where(where)
                .orderBy(...order.map((column) => asc(column)))
                .limit(BATCH)
                .offset(from);
              for (const row of rows) onRow(name, row);
              if (rows.length < BATCH) break;
            }
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
        for await (const [name, row] of rows) {
          const known = backedUp[name];
          if (known) await on.insert(known.table).values(revived(known.table, row));
        }
        await goOnCounting(on);
      });
    },
  };
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

async function goOnCounting(on: Connection) {
  await on.execute(
    sql`select setval(pg_get_serial_sequence('material_history', 'order'), (select coalesce(max("order"), 0) + 1 from material_history), false)`,
  );
}

/** What is kept of every table is read once, by its rows and by its indexes. @throws what the database says of damage */
export async function readThrough(database: Database): Promise<void> {
  for (const { table, order } of Object.values(backedUp)) {
    await database.execute(sql`select sum(length(${table}::text)) from ${table}`);
    await database.transaction(async (on) => {
      await on.execute(sql`set local enable_seqscan = off`);
      await on.execute(
        sql`select count(*) from (select ${order[0]!} from ${table} order by ${order[0]!}) as all_of_it`,
      );
    });
  }
}
