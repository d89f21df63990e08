import { ambientOf } from '@wick/plan/shop/ambient';
import { shownIn, unitOf } from '@wick/plan/shop/units';
import { formatQuantity } from '@wick/core/units/format';
import type { QuantityName } from '@wick/core/units/quantities';
import { usualShop, type Shop } from '@wick/contract/shop';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { api, ApiProblem } from './api.ts';

/** Shop settings, fetched once; units for everything shown. */
export const useShopStore = defineStore('shop', () => {
  const shop = shallowRef<Shop>(usualShop);
  const problem = shallowRef<string | null>(null);
  let revision = 0;

  async function load() {
    if (revision > 0) return;
    try {
      ({ revision, shop: shop.value } = await api.getShop());
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
    }
  }

  /** Writes go out one at a time, each with the revision that the one before it came back with. */
  let queue: Promise<void> = Promise.resolve();
  let waiting = 0;
  let era = 0;

  function save(next: Shop): Promise<void> {
    const before = shop.value;
    const own = era;
    shop.value = next;
    waiting += 1;
    return (queue = queue.then(async () => {
      waiting -= 1;
      // Another window's version has come in meanwhile: what was made of the one before it is not written over it.
      if (own === era) await write(next, before);
    }));
  }

  async function write(next: Shop, before: Shop) {
    try {
      const kept = await api.writeShop(revision, next);
      revision = kept.revision;
      if (waiting === 0) shop.value = kept.shop;
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
      if (error instanceof ApiProblem && error.problem.code === 'STALE') {
        era += 1;
        const current = await api.getShop().catch(() => null);
        if (current) ({ revision, shop: shop.value } = current);
      } else if (waiting === 0) shop.value = before;
    }
  }

  const ambient = computed(() => ambientOf(shop.value));
  const unit = (name: QuantityName) => unitOf(shop.value, name);
  const show = (value: number | null | undefined, name: QuantityName) => shownIn(shop.value)(value, name);

  /** Rolls and coils: metres or feet, after the unit that lengths are shown in. */
  const longUnit = computed(() => (['mm', 'cm', 'm'].includes(unit('length')) ? 'm' : 'ft'));
  const showLong = (value: number | null | undefined) => formatQuantity(value, 'length', longUnit.value);

  return { shop, problem, ambient, load, save, unit, show, showLong, longUnit };
});

export type ShopStore = ReturnType<typeof useShopStore>;
