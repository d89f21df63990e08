<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import type { Band } from './bands.ts';
import { toScreen, type Viewport } from './viewport.ts';

/** Minutes written on the bands; where bands crowd the later label gives way, and a name goes before. */
const props = defineProps<{
  view: Viewport;
  bands: readonly Band[];
  /** Where names stand, pixels. */
  names?: readonly Point[];
}>();
const ROOM = { x: 30, y: 18 };

const labels = computed(() => {
  const placed: { x: number; y: number; band: Band }[] = [];
  for (const band of [...props.bands].reverse().slice(0, -1)) {
    if (!band.labelAt) continue;
    const { x, y } = toScreen(props.view, band.labelAt);
    const taken = [...placed, ...(props.names ?? [])];
    if (taken.every((other) => Math.abs(other.x - x) > ROOM.x || Math.abs(other.y - y) > ROOM.y))
      placed.push({ x, y, band });
  }
  return placed;
});
</script>

<template>
  <text v-for="{ x, y, band } in labels" :key="band.until" :x="x" :y="y + 5" :class="{ dark: band.isDark }">{{
    band.label
  }}</text>
</template>

<style scoped>
text {
  font: 600 15px var(--display);
  text-anchor: middle;
  fill: #1e2a2f;
  paint-order: stroke;
  stroke: #fbf3dd;
  stroke-width: 3px;
  pointer-events: none;
}
.dark {
  fill: #fbf3dd;
  stroke: #3a2013;
}
</style>
