import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';

export type Database = PgliteDatabase;

const migrationsFolder = fileURLToPath(new URL('../../migrations', import.meta.url));

/**
 * Opens the embedded database and brings it up to date.
 * @param folder where it lives; undefined keeps it in memory
 */
export async function openDatabase(
  folder?: string,
): Promise<{ database: Database; close: () => Promise<void> }> {
  const client = await PGlite.create(folder);
  const database = drizzle(client);
  await migrate(database, { migrationsFolder });
  return { database, close: () => client.close() };
}
