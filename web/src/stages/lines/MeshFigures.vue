<script setup lang="ts">
import { meshAreasOf } from '@wick/plan/layout/mesh-areas';
import { useSession } from '../../compute/use-desk.ts';
import { toScreen, pathOf, type Viewport } from '../../board/viewport.ts';

/** Where flow mesh lies, when it does not lie everywhere: its edge, and its name to take hold of. */
defineProps<{ view: Viewport; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const label = (points: readonly { x: number; y: number }[]) =>
  points.reduce((best, p) => (p.x - p.y > best.x - best.y ? p : best));
</script>

<template>
  <g
    v-for="area in meshAreasOf(job.laid)"
    :key="area.id"
    :class="['area', { selected: selected === area.id }]"
    tabindex="0"
    role="button"
    :aria-label="area.name"
    @focus="emit('select', area.id)"
  >
    <path
      v-for="(ring, i) in [area.outline, ...area.holes]"
      :key="i"
      :d="pathOf(view, ring, true)"
      clip-path="url(#part-clip)"
    />
    <text :x="toScreen(view, label(area.outline)).x - 8" :y="toScreen(view, label(area.outline)).y - 7">
      {{ area.name }}
    </text>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.1;
  stroke-dasharray: 1.5 3.5;
  pointer-events: none;
}
.selected path {
  stroke-width: 2.4;
}
text {
  text-anchor: end;
  font: 500 12px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
  cursor: move;
}
</style>
