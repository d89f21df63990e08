<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { availablePressure } from '@wick/plan/laminate/stack';
import { usualFor } from '@wick/plan/settle';
import { formatQuantity } from '@wick/core/units/format';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Absolute pressure at the vents, with what a gauge here would show for it. */
const job = useSession();
const shop = useShopStore();
const assumed = computed(() => usualFor('vacuum.ventPressure', job.laid, shop.shop));
const gauge = computed(() => formatQuantity(availablePressure(job.laid, shop.shop), 'gaugePressure', 'inHg'));
const refuse = (value: number) =>
  value >= 0 && value < shop.ambient
    ? null
    : `The air outside has only ${shop.show(shop.ambient, 'absolutePressure')}.`;
</script>

<template>
  <div class="vacuum">
    <QuantityInput
      :label="`Vacuum at the vents, absolute (${gauge} on a gauge)`"
      quantity="absolutePressure"
      :model-value="job.laid.vacuum.ventPressure"
      :assumed="assumed"
      :refuse="refuse"
      @update:model-value="job.apply((document) => ({ ...document, vacuum: { ventPressure: $event } }))"
    />
  </div>
</template>

<style scoped>
.vacuum {
  width: 300px;
  flex: none;
}
</style>
