import { isDeepStrictEqual } from 'node:util';
import type { ImportCount, MaterialVersion, StoredMaterial } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { jobs, materialHistory, materials } from './tables.ts';
import { usersOf, type UsedBy } from './users.ts';

/** Entries written in one statement. */
const AT_ONCE = 200;

export type LibraryRepo = ReturnType<typeof createLibraryRepo>;
type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;

/** The material library; every write leaves its state in the history. */
export function createLibraryRepo(database: Database) {
  async function write(on: Connection, revision: number, material: Material): Promise<StoredMaterial | null> {
    const id = material.id;
    const [row] =
      revision === 0
        ? await on.insert(materials).values({ id, revision: 1, material }).onConflictDoNothing().returning()
        : await on
            .update(materials)
            .set({ material, revision: revision + 1 })
            .where(and(eq(materials.id, id), eq(materials.revision, revision)))
            .returning();
    if (!row) return null;
    await on.insert(materialHistory).values({ id, revision: row.revision, material });
    return { revision: row.revision, material: row.material };
  }

  return {
    async list(): Promise<StoredMaterial[]> {
      const rows = await database.select().from(materials).orderBy(materials.id);
      return rows.map(({ revision, material }) => ({ revision, material }));
    },

    async find(id: string): Promise<StoredMaterial | null> {
      const [row] = await database.select().from(materials).where(eq(materials.id, id));
      return row ? { revision: row.revision, material: row.material } : null;
    },

    /** Newest first. */
    async history(id: string): Promise<MaterialVersion[]> {
      const rows = await database
        .select()
        .from(materialHistory)
        .where(eq(materialHistory.id, id))
        .orderBy(desc(materialHistory.order));
      return rows.map(({ revision, changedAt, material }) => ({
        revision,
        changedAt: changedAt.toISOString(),
        material,
      }));
    },

    /** Revision 0 adds; null when the entry has moved on from the revision. */
    write: (revision: number, material: Material) =>
      database.transaction((on) => write(on, revision, material)),

    /**
     * Adds what is new and replaces what differs, all or none.
     * @param values each with the revision that it is to replace, 0 where it is to be new; where it is the same as what is there
     *        that does not matter
     * @returns the ids that have moved on, and then nothing is written
     */
    importAll(values: readonly StoredMaterial[]): Promise<ImportCount | { readonly stale: string[] }> {
      return database.transaction(async (on) => {
        const count = { added: 0, changed: 0, same: 0 };
        const known = new Map((await on.select().from(materials).for('update')).map((row) => [row.id, row]));
        const isSame = ({ material }: StoredMaterial) =>
          isDeepStrictEqual(known.get(material.id)?.material, material);
        const stale = values.filter(
          (value) => !isSame(value) && (known.get(value.material.id)?.revision ?? 0) !== value.revision,
        );
        if (stale.length > 0) return { stale: stale.map(({ material }) => material.id) };
        const changed = values.filter((value) => !isSame(value));
        count.same = values.length - changed.length;
        count.added = changed.filter(({ revision }) => revision === 0).length;
        count.changed = changed.length - count.added;
        // A few at a time: each holds as many values as there are columns.
        for (let from = 0; from < changed.length; from += AT_ONCE) {
          const rows = changed
            .slice(from, from + AT_ONCE)
            .map(({ revision, material }) => ({ id: material.id, revision: revision + 1, material }));
          await on
            .insert(materials)
            .values(rows)
            .onConflictDoUpdate({
              target: materials.id,
              set: { revision: sql`excluded.revision`, material: sql`excluded.material` },
            });
          await on.insert(materialHistory).values(rows);
        }
        return count;
      });
    },

    /** @returns the jobs that use it, and then it stays; null when it has moved on from the revision (or is gone) */
    remove(id: string, revision: number): Promise<UsedBy | null> {
      return database.transaction(async (on) => {
        const isMeant = and(eq(materials.id, id), eq(materials.revision, revision));
        const found = await on.select({ id: materials.id }).from(materials).where(isMeant).for('update');
        if (found.length === 0) return null;
        const users = await usersOf(on, sql`${jobs.materialIds} ? ${id}`);
        if (users.length === 0) await on.delete(materials).where(isMeant);
        return users;
      });
    },
  };
}
