import { ambientOf } from '@wick/plan/shop/ambient';
import { formatQuantity } from '@wick/core/units/format';
import { quantityOf, type QuantityName } from '@wick/core/units/quantities';
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

  async function save(next: Shop) {
    const before = shop.value;
    shop.value = next;
    try {
      ({ revision, shop: shop.value } = await api.writeShop(revision, next));
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
      if (error instanceof ApiProblem && error.problem.code === 'STALE')
        ({ revision, shop: shop.value } = await api.getShop());
      else shop.value = before;
    }
  }

  const ambient = computed(() => ambientOf(shop.value));
  const unit = (name: QuantityName) => shop.value.units[name] ?? quantityOf(name).usual;
  const show = (value: number | null | undefined, name: QuantityName) =>
    formatQuantity(value, name, unit(name));

  /** Rolls and coils: metres or feet, after the unit that lengths are shown in. */
  const longUnit = computed(() => (['mm', 'cm', 'm'].includes(unit('length')) ? 'm' : 'ft'));
  const showLong = (value: number | null | undefined) => formatQuantity(value, 'length', longUnit.value);

  return { shop, problem, ambient, load, save, unit, show, showLong, longUnit };
});

export type ShopStore = ReturnType<typeof useShopStore>;
