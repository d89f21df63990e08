<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { computed } from 'vue';
import { useForecastStore } from '../state/forecast-store.ts';
import type { Band } from './bands.ts';
import { pathOf, pathOfRings, type Viewport } from './viewport.ts';
import { useJobStore } from '../state/job-store.ts';

/** The front as bands of equal time, past-gel and dry areas, and the front at the scrubbed minute. */
const props = defineProps<{ view: Viewport; minute: number | null; bands: readonly Band[] }>();
const forecast = useForecastStore();
const job = useJobStore();

/** Everything not wet at the scrubbed minute, faded. */
const ahead = computed(() => {
  if (props.minute === null || !forecast.isochrones || !job.document) return null;
  const wet = forecast.isochrones.wetBy(forecast.runTimeAt(props.minute));
  const { outline, holes } = job.document.part;
  const part = [outline, ...holes].map((ring) => pathOf(props.view, polygonOf(ring), true)).join('');
  const front = pathOfRings(props.view, wet);
  return { shade: part + front, front };
});
const neverWet = computed(() => forecast.flow !== null && (forecast.verdict?.fillTime ?? 0) === Infinity);
</script>

<template>
  <g v-if="forecast.flow">
    <rect v-if="neverWet" width="100%" height="100%" fill="url(#gel-hatch)" />
    <path
      v-for="band in bands"
      :key="band.until"
      :d="pathOfRings(view, band.rings)"
      :fill="band.colour"
      fill-rule="evenodd"
      stroke="#fbfaf6"
      stroke-width="0.9"
    />
    <template v-if="ahead">
      <path :d="ahead.shade" fill="#fbfaf6" fill-rule="evenodd" opacity="0.78" />
      <path :d="ahead.front" fill="none" stroke="var(--ink)" stroke-width="2" />
    </template>
  </g>
</template>
