<script setup lang="ts">
import { ventPressureOf } from '@wick/contract/forecast-input';
import { formatQuantity } from '@wick/core/units/format';
import { computed } from 'vue';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Absolute pressure at the vents, with what a gauge here would show for it. */
const job = useJobStore();
const shop = useShopStore();
const assumed = computed(() => ventPressureOf({ ...job.document!, vacuum: { ventPressure: null } }));
const gauge = computed(() =>
  formatQuantity(shop.ambient - ventPressureOf(job.document!), 'gaugePressure', 'inHg'),
);
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
      :model-value="job.document!.vacuum.ventPressure"
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
