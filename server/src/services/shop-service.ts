import type { StoredMaterial, StoredShop } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import { usualShop, type Shop } from '@wick/contract/shop';
import type { ShopRepo } from '../repo/shop-repo.ts';
import { ProblemError } from './problem.ts';

export type ShopService = ReturnType<typeof createShopService>;

export function createShopService(repo: ShopRepo) {
  async function getShop(): Promise<StoredShop> {
    const found = await repo.findShop();
    if (found) return found;
    await repo.addShop(usualShop);
    return { revision: 1, shop: usualShop };
  }

  return {
    getShop,
    async writeShop(revision: number, shop: Shop): Promise<StoredShop> {
      const written = await repo.replaceShop(revision, shop);
      if (written) return written;
      throw new ProblemError(
        'STALE',
        'The shop settings were changed in another window. Choose which version to keep.',
        await getShop(),
      );
    },
    listMaterials: (): Promise<StoredMaterial[]> => repo.listMaterials(),
    async writeMaterial(revision: number, material: Material): Promise<StoredMaterial> {
      const written = await repo.writeMaterial(revision, material);
      if (written) return written;
      const current = await repo.findMaterial(material.id);
      if (!current)
        throw new ProblemError(
          'NOT_FOUND',
          `“${material.name}” is no longer in the library. Add it as a new entry.`,
        );
      throw new ProblemError(
        'STALE',
        `“${material.name}” was changed in another window. Choose which version to keep.`,
        current,
      );
    },
  };
}
