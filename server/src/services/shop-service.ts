import type { StoredShop } from '@wick/contract/api';
import { usualShop, type Shop } from '@wick/contract/shop';
import type { ShopRepo } from '../repo/shop-repo.ts';
import { ProblemError } from './problem.ts';

export type ShopService = ReturnType<typeof createShopService>;

/** @param onChanged called after the settings have been written */
export function createShopService(repo: ShopRepo, onChanged: () => Promise<unknown> = async () => undefined) {
  async function getShop(): Promise<StoredShop> {
    const found = await repo.findShop();
    if (found) return found;
    await repo.addShop(usualShop);
    return (await repo.findShop()) ?? { revision: 1, shop: usualShop };
  }

  return {
    getShop,
    async writeShop(revision: number, shop: Shop): Promise<StoredShop> {
      const written = await repo.replaceShop(revision, shop);
      if (written) {
        await onChanged();
        return written;
      }
      throw new ProblemError(
        'STALE',
        'The shop settings were changed in another window. Choose which version to keep.',
        await getShop(),
      );
    },
  };
}
