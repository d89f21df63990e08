<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed } from 'vue';
import { fitViewport, pathOf, toPlan, toScreen } from '../../board/viewport.ts';

/** The plan of the part, for what is laid, read or seen on it. */
const props = defineProps<{ job: LaidJob; label: string; isTappable?: boolean }>();
const emit = defineEmits<{ tap: [place: Point] }>();
const size = { width: 640, height: 250 };
const EDGE = 22;
const rings = computed(() => [
  polygonOf(props.job.part.outline),
  ...props.job.part.holes.map(({ outline }) => polygonOf(outline)),
]);
const view = computed(() => fitViewport(boundsOf(rings.value[0]!), size, EDGE));
const part = computed(() => rings.value.map((ring) => pathOf(view.value, ring, true)).join(''));

function tap(event: MouseEvent) {
  if (!props.isTappable) return;
  const svg = event.currentTarget as SVGSVGElement;
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  emit('tap', toPlan(view.value, at));
}
defineExpose({ size });
</script>

<template>
  <svg
    :viewBox="`0 0 ${size.width} ${size.height}`"
    :class="{ tappable: isTappable }"
    role="img"
    :aria-label="label"
    data-testid="run-plan"
    @click="tap"
  >
    <path :d="part" class="part" />
    <slot name="under" :view="view" />
    <path
      v-for="feature in job.part.features"
      :key="feature.id"
      :d="pathOf(view, feature.points, false)"
      class="feature"
    />
    <slot :view="view" :at="(place: Point) => toScreen(view, place)" />
  </svg>
</template>

<style scoped>
svg {
  /* What is drawn over it takes its colour. */
  --plan: var(--sheet);
  width: 100%;
  max-height: 31vh;
  display: block;
  /* A long table under it does not press it flat. */
  flex: none;
}
.tappable {
  cursor: crosshair;
}
.part {
  fill: var(--sheet);
  fill-rule: evenodd;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.feature {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 2;
  stroke-dasharray: 5 3;
}
</style>
