import type { StoredMaterial, StoredShop } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { and, eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { materials, shop } from './tables.ts';

const ONLY = 1;

export type ShopRepo = ReturnType<typeof createShopRepo>;

/** Shop settings and the material library. */
export function createShopRepo(database: Database) {
  return {
    async findShop(): Promise<StoredShop | null> {
      const [row] = await database.select().from(shop).where(eq(shop.id, ONLY));
      return row ? { revision: row.revision, shop: row.shop } : null;
    },

    async addShop(value: Shop): Promise<void> {
      await database.insert(shop).values({ id: ONLY, revision: 1, shop: value });
    },

    async replaceShop(revision: number, value: Shop): Promise<StoredShop | null> {
      const [row] = await database
        .update(shop)
        .set({ shop: value, revision: revision + 1 })
        .where(and(eq(shop.id, ONLY), eq(shop.revision, revision)))
        .returning();
      return row ? { revision: row.revision, shop: row.shop } : null;
    },

    async listMaterials(): Promise<StoredMaterial[]> {
      const rows = await database.select().from(materials).orderBy(materials.id);
      return rows.map(({ revision, material }) => ({ revision, material }));
    },

    async findMaterial(id: string): Promise<StoredMaterial | null> {
      const [row] = await database.select().from(materials).where(eq(materials.id, id));
      return row ? { revision: row.revision, material: row.material } : null;
    },

    async addMaterials(values: readonly Material[]): Promise<void> {
      const rows = values.map((material) => ({ id: material.id, revision: 1, material }));
      await database.insert(materials).values(rows).onConflictDoNothing();
    },

    /** Revision 0 adds; null when the entry has moved on from the revision. */
    async writeMaterial(revision: number, material: Material): Promise<StoredMaterial | null> {
      const [row] =
        revision === 0
          ? await database
              .insert(materials)
              .values({ id: material.id, revision: 1, material })
              .onConflictDoNothing()
              .returning()
          : await database
              .update(materials)
              .set({ material, revision: revision + 1 })
              .where(and(eq(materials.id, material.id), eq(materials.revision, revision)))
              .returning();
      return row ? { revision: row.revision, material: row.material } : null;
    },
  };
}
