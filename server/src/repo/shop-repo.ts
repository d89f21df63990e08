import type { StoredShop } from '@wick/contract/api';
import type { Shop } from '@wick/contract/shop';
import { and, eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { shop } from './tables.ts';

const ONLY = 1;

export type ShopRepo = ReturnType<typeof createShopRepo>;

export function createShopRepo(database: Database) {
  return {
    async findShop(): Promise<StoredShop | null> {
      const [row] = await database.select().from(shop).where(eq(shop.id, ONLY));
      return row ? { revision: row.revision, shop: row.shop } : null;
    },

    /** @returns false where there is one already */
    async addShop(value: Shop): Promise<boolean> {
      const rows = await database
        .insert(shop)
        .values({ id: ONLY, revision: 1, shop: value })
        .onConflictDoNothing()
        .returning({ id: shop.id });
      return rows.length > 0;
    },

    async replaceShop(revision: number, value: Shop): Promise<StoredShop | null> {
      const [row] = await database
        .update(shop)
        .set({ shop: value, revision: revision + 1 })
        .where(and(eq(shop.id, ONLY), eq(shop.revision, revision)))
        .returning();
      return row ? { revision: row.revision, shop: row.shop } : null;
    },
  };
}
