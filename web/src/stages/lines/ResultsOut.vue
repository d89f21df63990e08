<script setup lang="ts">
import { csvOf, vtuOf } from '@wick/contract/results-out';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import { saveFile } from '../../ui/save-file.ts';

/** Arrival, pressure, lag, final thickness and fibre volume at the nodes, to take elsewhere. */
const job = useJobStore();
const forecast = useForecastStore();

function save(write: typeof csvOf, type: string, extension: string) {
  const { flow, timeline } = forecast;
  if (flow && timeline)
    saveFile(`${job.document!.name}.${extension}`, new Blob([write(flow, timeline)], { type }));
}
</script>

<template>
  <span v-if="forecast.timeline" class="out quiet">
    Results as
    <button class="plain" @click="save(csvOf, 'text/csv', 'csv')">CSV</button>
    <button class="plain" @click="save(vtuOf, 'application/xml', 'vtu')">VTK</button>
  </span>
</template>

<style scoped>
.out {
  font-size: 13px;
  white-space: nowrap;
}
button {
  text-decoration: underline;
  margin-left: 4px;
}
</style>
