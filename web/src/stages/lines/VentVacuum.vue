<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { availablePressure } from '@wick/plan/laminate/stack';
import { formatQuantity } from '@wick/core/units/format';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';

/** Absolute pressure at the vents, with what a gauge here would show for it. */
const job = useSession();
const shop = useShopStore();
const gauge = computed(() => formatQuantity(availablePressure(job.laid, shop.shop), 'gaugePressure', 'inHg'));
const refuse = (value: number) =>
  value >= 0 && value < shop.ambient
    ? null
    : `The air outside has only ${shop.show(shop.ambient, 'absolutePressure')}.`;
</script>

<template>
  <div class="vacuum">
    <JobField
      :label="`Vacuum at the vents, absolute (${gauge} on a gauge)`"
      path="vacuum.ventPressure"
      :refuse="refuse"
    />
  </div>
</template>

<style scoped>
.vacuum {
  width: 300px;
  flex: none;
}
</style>
