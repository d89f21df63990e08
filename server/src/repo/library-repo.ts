import { isDeepStrictEqual } from 'node:util';
import type { ImportCount, MaterialVersion, StoredMaterial } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import { and, desc, eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { materialHistory, materials } from './tables.ts';

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
        .orderBy(desc(materialHistory.changedAt), desc(materialHistory.revision));
      return rows.map(({ revision, changedAt, material }) => ({
        revision,
        changedAt: changedAt.toISOString(),
        material,
      }));
    },

    /** Revision 0 adds; null when the entry has moved on from the revision. */
    write: (revision: number, material: Material) =>
      database.transaction((on) => write(on, revision, material)),

    /** Adds what is new and replaces what differs, all or none. */
    importAll(values: readonly Material[]): Promise<ImportCount> {
      return database.transaction(async (on) => {
        const count = { added: 0, changed: 0, same: 0 };
        const known = new Map((await on.select().from(materials)).map((row) => [row.id, row]));
        for (const value of values) {
          const old = known.get(value.id);
          if (old && isDeepStrictEqual(old.material, value)) count.same += 1;
          else {
            await write(on, old?.revision ?? 0, value);
            if (old) count.changed += 1;
            else count.added += 1;
          }
        }
        return count;
      });
    },

    async remove(id: string, revision: number): Promise<boolean> {
      const rows = await database
        .delete(materials)
        .where(and(eq(materials.id, id), eq(materials.revision, revision)))
        .returning({ id: materials.id });
      return rows.length > 0;
    },
  };
}
