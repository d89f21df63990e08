<script setup lang="ts">
import { useChecks, useProbes } from '../../compute/use-desk.ts';
import type { Point } from '@wick/core/geometry/polygon';
import LabelText from './LabelText.vue';
import { worstId, type Labels } from './use-labels.ts';
import { toScreen, type Viewport } from '../../board/viewport.ts';

/** Broken rules where they are, pinned probes, and where the doubt would have it dry. */
const props = defineProps<{
  view: Viewport;
  worst: readonly { readonly place: Point; readonly share: number }[];
  labels: Labels;
}>();
const emit = defineEmits<{ check: [id: string] }>();
const checks = useChecks();
const probes = useProbes();

const place = (p: { x: number; y: number }) => {
  const { x, y } = toScreen(props.view, p);
  return `translate(${x} ${y})`;
};
</script>

<template>
  <g
    v-for="(spot, i) in worst"
    :key="`${spot.place.x} ${spot.place.y}`"
    class="worst"
    :transform="place(spot.place)"
  >
    <circle r="22" />
    <LabelText :label="labels.get(worstId(i))" />
  </g>
  <g
    v-for="(item, i) in checks.breaks"
    :key="`${item.rule} ${item.itemId} ${i}`"
    class="check"
    :transform="place(item.at)"
    tabindex="0"
    role="button"
    :aria-label="item.message"
    @pointerdown.stop="emit('check', item.itemId)"
    @keydown.enter="emit('check', item.itemId)"
  >
    <title>{{ item.message }}</title>
    <rect x="8" y="-25" width="18" height="18" rx="3" />
    <text x="17" y="-11">{{ i + 1 }}</text>
  </g>
  <g
    v-for="{ id, name, x, y } in probes.probes"
    :key="id"
    class="probe"
    :transform="place({ x, y })"
    tabindex="0"
    role="button"
    :aria-label="`Probe ${name}`"
  >
    <circle r="12" class="reach" />
    <circle r="4.5" class="pin" />
    <LabelText :label="labels.get(id)" />
  </g>
</template>

<style scoped>
.worst circle {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.6;
  stroke-dasharray: 3 4;
}
.worst {
  --label: var(--ember);
}
text {
  font: 600 12.5px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
  pointer-events: none;
}
.check {
  cursor: pointer;
}
.check rect {
  fill: var(--ember);
  stroke: #fbfaf6;
}
.check text {
  fill: white;
  stroke: none;
  text-anchor: middle;
}
.probe {
  cursor: move;
}
.pin {
  fill: #fbfaf6;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.reach {
  fill: transparent;
}
</style>
