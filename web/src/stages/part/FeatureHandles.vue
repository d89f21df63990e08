<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { computed } from 'vue';
import { arrowOf } from '../../board/tool.ts';
import { toScreen, type Viewport } from '../../board/viewport.ts';
import { moveFeaturePoint } from '@wick/plan/part/features';

/** Points of rises, steps and inside corners, to drag or nudge. */
const props = defineProps<{ view: Viewport }>();
const job = useSession();
const handles = computed(() =>
  job.laid.part.features.flatMap(({ id, name, points }) =>
    points.map((p, index) => ({ id, name, index, p, at: toScreen(props.view, p) })),
  ),
);
function nudge(event: KeyboardEvent, { id, index, p }: (typeof handles.value)[number]) {
  const by = arrowOf(event);
  if (!by) return;
  job.apply(moveFeaturePoint(id, index, { x: p.x + by.x, y: p.y + by.y }));
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <rect
    v-for="handle in handles"
    :key="`${handle.id} ${handle.index}`"
    :x="handle.at.x - 5"
    :y="handle.at.y - 5"
    width="10"
    height="10"
    tabindex="0"
    role="button"
    :aria-label="`${handle.name}, point ${handle.index + 1}`"
    @keydown="nudge($event, handle)"
  />
</template>

<style scoped>
rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
  cursor: move;
}
</style>
