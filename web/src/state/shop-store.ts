import { formatQuantity } from '@wick/core/units/format';
import { quantityOf, type QuantityName } from '@wick/core/units/quantities';
import type { Material, MaterialKind, MaterialOf } from '@wick/contract/materials';
import { ambientOf, usualShop, type Shop } from '@wick/contract/shop';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client.ts';

/** Shop settings and library, fetched once; units for everything shown. */
export const useShopStore = defineStore('shop', () => {
  const shop = shallowRef<Shop>(usualShop);
  const materials = shallowRef<readonly Material[]>([]);
  const problem = shallowRef<string | null>(null);
  let revision = 0;

  async function load() {
    if (revision > 0) return;
    try {
      const [stored, library] = await Promise.all([api.getShop(), api.listMaterials()]);
      ({ revision, shop: shop.value } = stored);
      materials.value = library.map((entry) => entry.material);
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
  const ofKind = <K extends MaterialKind>(kind: K) =>
    materials.value.filter((item): item is MaterialOf<K> => item.kind === kind);

  return { shop, materials, problem, ambient, load, save, unit, show, ofKind };
});
