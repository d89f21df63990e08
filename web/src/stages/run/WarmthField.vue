<script setup lang="ts">
import { isOf } from '@wick/plan/run/state';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useInstruments } from '../../data/instruments.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** How warm it is where the part lies: clocks slide with it. From a thermometer, or typed. */
const run = useRun();
const shop = useShopStore();
const { list } = useInstruments();
const told = computed(() => run.state.entries.filter(isOf('warmth')).at(-1)?.body ?? null);
const from = computed(() => {
  const id = told.value?.instrumentId;
  if (!told.value) return 'as the workshop usually is';
  return id ? (list.value.find((one) => one.id === id)?.name ?? 'thermometer') : 'as typed';
});
const tell = (temperature: number | null) =>
  temperature !== null && void run.say({ kind: 'warmth', temperature, instrumentId: null });
</script>

<template>
  <section class="warmth">
    <QuantityInput
      :model-value="told?.temperature ?? null"
      label="Temperature where the part lies"
      quantity="temperature"
      :assumed="shop.shop.temperature"
      :limits="{ above: 233, below: 473 }"
      @update:model-value="tell"
    />
    <small class="quiet">{{ from }}</small>
  </section>
</template>

<style scoped>
.warmth {
  margin-top: 18px;
}
</style>
