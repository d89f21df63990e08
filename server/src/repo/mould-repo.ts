import type { StoredMould } from '@wick/contract/api';
import type { Mould } from '@wick/contract/mould';
import { and, eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs, moulds } from './tables.ts';
import { usersOf, type UsedBy } from './users.ts';

export type MouldRepo = ReturnType<typeof createMouldRepo>;

export function createMouldRepo(database: Database) {
  return {
    async list(): Promise<StoredMould[]> {
      const rows = await database.select().from(moulds).orderBy(moulds.id);
      return rows.map(({ revision, mould }) => ({ revision, mould }));
    },

    async find(id: string): Promise<StoredMould | null> {
      const [row] = await database.select().from(moulds).where(eq(moulds.id, id));
      return row ? { revision: row.revision, mould: row.mould } : null;
    },

    /** Revision 0 adds; null when the record has moved on from the revision. */
    async write(revision: number, mould: Mould): Promise<StoredMould | null> {
      const id = mould.id;
      const [row] =
        revision === 0
          ? await database.insert(moulds).values({ id, revision: 1, mould }).onConflictDoNothing().returning()
          : await database
              .update(moulds)
              .set({ mould, revision: revision + 1 })
              .where(and(eq(moulds.id, id), eq(moulds.revision, revision)))
              .returning();
      return row ? { revision: row.revision, mould: row.mould } : null;
    },

    /** @returns the jobs made on it, and then it stays; null when it has moved on from the revision (or is gone) */
    remove(id: string, revision: number): Promise<UsedBy | null> {
      return database.transaction(async (on) => {
        const isMeant = and(eq(moulds.id, id), eq(moulds.revision, revision));
        const found = await on.select({ id: moulds.id }).from(moulds).where(isMeant).for('update');
        if (found.length === 0) return null;
        const users = await usersOf(on, eq(jobs.mouldId, id));
        if (users.length === 0) await on.delete(moulds).where(isMeant);
        return users;
      });
    },
  };
}
