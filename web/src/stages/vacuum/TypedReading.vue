<script setup lang="ts">
import { newId } from '@wick/plan/job/ids';
import { ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { Hung } from './bench.ts';

/** What a gauge without a cable shows, typed: it is a reading like any other. */
const props = defineProps<{ hung: Hung }>();
const run = useRun();
const message = ref<string | null>(null);
const count = ref(0);
async function type(value: number | null) {
  if (value === null) return;
  try {
    await api.typeReading(props.hung.instrument.id, {
      id: newId(),
      at: new Date(run.now()).toISOString(),
      value,
    });
    message.value = null;
    count.value += 1;
  } catch (error) {
    message.value = (error as Error).message;
  }
}
</script>

<template>
  <QuantityInput
    :key="count"
    class="typed"
    :label="`${hung.instrument.name} shows`"
    :quantity="hung.instrument.measures"
    :unit="hung.instrument.unit"
    :model-value="null"
    optional
    @update:model-value="type"
  />
  <span v-if="message" class="ember" role="alert">{{ message }}</span>
</template>

<style scoped>
.typed {
  width: 200px;
}
</style>
