import type { Measure } from '@wick/contract/run/instrument';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { instruments } from './tables.ts';

export type StoredInstrument = typeof instruments.$inferSelect;
export type InstrumentRepo = ReturnType<typeof createInstrumentRepo>;
type Added = Omit<typeof instruments.$inferInsert, 'number' | 'addedAt' | 'revokedAt' | 'clockOffset'> & {
  readonly measures: Measure;
};

/** Instruments, with the word of each as its hash only. */
export function createInstrumentRepo(database: Database) {
  return {
    async list(): Promise<StoredInstrument[]> {
      return database.select().from(instruments).orderBy(instruments.number);
    },

    async find(id: string): Promise<StoredInstrument | null> {
      const [row] = await database.select().from(instruments).where(eq(instruments.id, id));
      return row ?? null;
    },

    /** @returns null where there is one of that id */
    async add(instrument: Added): Promise<StoredInstrument | null> {
      const [row] = await database.insert(instruments).values(instrument).onConflictDoNothing().returning();
      return row ?? null;
    },

    /** A word is good again, and is another one. */
    async changeWord(id: string, wordHash: string): Promise<StoredInstrument | null> {
      const [row] = await database
        .update(instruments)
        .set({ wordHash, revokedAt: null })
        .where(and(eq(instruments.id, id), eq(instruments.kind, 'device')))
        .returning();
      return row ?? null;
    },

    async revoke(id: string): Promise<boolean> {
      const rows = await database
        .update(instruments)
        .set({ wordHash: null, revokedAt: sql`now()` })
        .where(and(eq(instruments.id, id), isNull(instruments.revokedAt)))
        .returning({ id: instruments.id });
      return rows.length > 0;
    },

    async keepClock(number: number, clockOffset: number): Promise<void> {
      await database.update(instruments).set({ clockOffset }).where(eq(instruments.number, number));
    },
  };
}
