<script setup lang="ts">
import type { QuantityName } from '@wick/core/units/quantities';
import { computed } from 'vue';
import { useUnits } from '../ui/units.ts';
import type { FieldBand } from './fields.ts';

/** What the colours of a field stand for: each swatch with the value it starts at. */
const props = defineProps<{ bands: readonly FieldBand[]; quantity: QuantityName }>();
const units = useUnits();
const steps = computed(() => [...props.bands].reverse());
</script>

<template>
  <div class="scale">
    <span v-for="step in steps" :key="step.from" class="step">
      <i :style="{ background: step.colour }" />
      <span class="number">{{ units.show(step.from, quantity) }}</span>
    </span>
  </div>
</template>

<style scoped>
.scale {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  font-size: 12px;
}
.step {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
i {
  width: 16px;
  height: 12px;
  border: 1px solid var(--rule);
}
</style>
