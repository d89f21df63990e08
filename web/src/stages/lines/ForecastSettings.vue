<script setup lang="ts">
import { runsInLayers } from '@wick/plan/forecast/problem';
import { withForecast } from '@wick/plan/job/edits';
import { useSession } from '../../compute/use-desk.ts';
import Checkbox from 'ant-design-vue/es/checkbox';
import Choice from '../../ui/Choice.vue';

/** How the forecast is made: quick and averaged, or through the thickness; a stiff laminate, or one that gives. */
const job = useSession();
const fineness = [
  { value: 0, label: 'usual mesh' },
  { value: 1500, label: 'quick mesh, 1 500 nodes' },
  { value: 5000, label: 'fine mesh, 5 000 nodes' },
  { value: 10_000, label: 'very fine mesh, 10 000 nodes' },
];
</script>

<template>
  <div class="settings">
    <Checkbox
      :checked="runsInLayers(job.laid)"
      @change="job.apply(withForecast({ layers: $event.target.checked }))"
      >Mesh and plies as layers</Checkbox
    >
    <Checkbox
      :checked="job.laid.forecast.soft"
      @change="job.apply(withForecast({ soft: $event.target.checked }))"
      >Laminate gives under resin pressure</Checkbox
    >
    <Choice
      size="small"
      aria-label="Fineness of the forecast"
      :value="job.laid.forecast.nodeCount ?? 0"
      :options="fineness"
      @change="job.apply(withForecast({ nodeCount: Number($event) || null }))"
    />
  </div>
</template>

<style scoped>
.settings {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  grid-column: 1 / -1;
  font-size: 13px;
}
</style>
