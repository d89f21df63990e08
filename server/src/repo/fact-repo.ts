import { eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { facts } from './tables.ts';

export type FactRepo = ReturnType<typeof createFactRepo>;

/** Single facts about this database. */
export function createFactRepo(database: Pick<Database, 'select' | 'insert' | 'delete'>) {
  return {
    async find(name: string): Promise<unknown> {
      const [row] = await database.select().from(facts).where(eq(facts.name, name));
      return row?.value ?? null;
    },

    async keep(name: string, value: unknown): Promise<void> {
      await database
        .insert(facts)
        .values({ name, value })
        .onConflictDoUpdate({ target: facts.name, set: { value } });
    },

    async forget(name: string): Promise<void> {
      await database.delete(facts).where(eq(facts.name, name));
    },
  };
}
