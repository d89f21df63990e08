<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { toScreen, type Viewport } from '../../board/viewport.ts';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';

/** Dry regions by name, and the marks with the minute the front passes them. */
defineProps<{ view: Viewport; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useJobStore();
const shop = useShopStore();
const forecast = useForecastStore();

function markTime(id: string): string {
  const arrival = forecast.flow?.marks.find((mark) => mark.id === id)?.arrival;
  if (arrival === undefined) return '';
  const time = forecast.timeOf(arrival);
  return Number.isFinite(time) ? formatClock(time) : 'not before gel';
}
const regions = computed(() => forecast.flow?.dryRegions ?? []);
</script>

<template>
  <g
    v-for="(region, i) in regions"
    :key="`dry${i}`"
    class="dry"
    :transform="`translate(${toScreen(view, region.place).x} ${toScreen(view, region.place).y})`"
  >
    <circle r="9" />
    <text x="14" y="5">
      dry {{ i + 1 }}: {{ shop.show(region.area, 'area') }} cut off
      {{ formatClock(forecast.timeOf(region.time)) }}
    </text>
  </g>
  <g
    v-for="mark in job.document!.marks"
    :key="mark.id"
    :class="['mark', { selected: selected === mark.id }]"
    :data-mark="mark.id"
    :transform="`translate(${toScreen(view, mark).x} ${toScreen(view, mark).y})`"
    tabindex="0"
    role="button"
    :aria-label="mark.name"
    @focus="emit('select', mark.id)"
  >
    <circle r="11" class="reach" />
    <path d="M -7 0 H 7 M 0 -7 V 7" />
    <text x="10" y="-8">{{ mark.name }} {{ markTime(mark.id) }}</text>
  </g>
</template>

<style scoped>
.mark-tool {
  cursor: crosshair;
}
.mark {
  cursor: move;
}
.mark path {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.mark .reach {
  fill: transparent;
}
.mark.selected path {
  stroke-width: 4;
}
.mark text {
  font: 600 13px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3.5px;
}
.dry circle {
  fill: #fbfaf6;
  stroke: var(--ember);
  stroke-width: 2.5;
}
.dry text {
  font: 600 13px var(--display);
  fill: var(--ember);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
}
</style>
