<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { createIsochrones } from '@wick/core/flow/isochrones';
import { dryName } from '@wick/plan/forecast/words';
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { pathOfRings, toScreen, type Viewport } from '../../board/viewport.ts';
import LabelText from './LabelText.vue';
import type { Labels } from './use-labels.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** Dry regions by name, and the marks with the minute the front passes them. */
defineProps<{ view: Viewport; selected: string | null; labels: Labels }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();

const regions = computed(() => {
  const { flow } = forecast;
  if (!flow) return [];
  return flow.dryRegions.map((region, i) => {
    const outside = new Float64Array(flow.mesh.nodeCount).fill(1);
    for (const node of region.nodes) outside[node] = 0;
    return { ...region, name: dryName(i), rings: createIsochrones(flow.mesh, outside).wetBy(0.5) };
  });
});
</script>

<template>
  <g v-for="region in regions" :key="region.name" class="dry">
    <path :d="pathOfRings(view, region.rings)" />
    <text :x="toScreen(view, region.place).x" :y="toScreen(view, region.place).y + 5">
      {{ region.name }}: {{ shop.show(region.area, 'area') }} cut off
      {{ formatClock(forecast.timeOf(region.time)) }}
    </text>
  </g>
  <g
    v-for="mark in job.laid.marks"
    :key="mark.id"
    :class="['mark', { selected: selected === mark.id }]"
    :transform="`translate(${toScreen(view, mark).x} ${toScreen(view, mark).y})`"
    tabindex="0"
    role="button"
    :aria-label="mark.name"
    @focus="emit('select', mark.id)"
  >
    <circle r="11" class="reach" />
    <path d="M -7 0 H 7 M 0 -7 V 7" />
    <LabelText :label="labels.get(mark.id)" />
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
.dry path {
  fill: #fbfaf6cc;
  stroke-dasharray: 4 3;
  stroke: var(--ember);
  stroke-width: 2.5;
}
.dry text {
  font: 600 13px var(--display);
  fill: var(--ember);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
  text-anchor: middle;
}
</style>
