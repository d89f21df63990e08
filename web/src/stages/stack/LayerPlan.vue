<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf } from '@wick/core/geometry/polygon';
import type { Region } from '@wick/core/geometry/overlay';
import { layerWord } from '@wick/plan/stack/kinds';
import { regionOf } from '@wick/plan/stack/regions';
import { isLeftOff } from '@wick/plan/stack/laid-on';
import { computed } from 'vue';
import { fitViewport, pathOf } from '../../board/viewport.ts';
import { useSession } from '../../compute/use-desk.ts';

/** Where one layer lies on the plan, hatched; what it is left off on is left white. */
const props = defineProps<{ selected: string | null }>();
const job = useSession();
const size = { width: 300, height: 190 };
const ROOM = 0.1;

const layer = computed(
  () => job.laid.layers.find(({ id }) => id === props.selected) ?? job.laid.layers.at(-1) ?? null,
);
const view = computed(() => {
  const { minX, minY, maxX, maxY } = boundsOf(polygonOf(job.laid.part.outline));
  const box = { minX: minX - ROOM, minY: minY - ROOM, maxX: maxX + ROOM, maxY: maxY + ROOM };
  return fitViewport(box, size, 4);
});
const pathsOf = (region: Region) =>
  region
    .flatMap(({ outline, holes }) => [outline, ...holes])
    .map((ring) => pathOf(view.value, polygonOf(ring), true))
    .join('');
const part = computed(() =>
  pathsOf([{ outline: job.laid.part.outline, holes: job.laid.part.holes.map(({ outline }) => outline) }]),
);
const covered = computed(() => {
  if (!layer.value) return '';
  try {
    return pathsOf(regionOf(job.laid, layer.value));
  } catch {
    return '';
  }
});
const off = computed(() =>
  pathsOf(
    job.laid.zones
      .filter(({ id }) => layer.value && isLeftOff(layer.value, id))
      .map(({ outline }) => ({ outline, holes: [] })),
  ),
);
</script>

<template>
  <figure v-if="layer">
    <svg
      :viewBox="`0 0 ${size.width} ${size.height}`"
      role="img"
      :aria-label="`Where the ${layerWord(layer.kind)} lies`"
    >
      <defs>
        <pattern id="laid" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(38)">
          <line x1="0" y1="0" x2="0" y2="7" />
        </pattern>
      </defs>
      <path :d="part" class="part" />
      <path :d="covered" class="covered" />
      <path :d="off" class="off" />
      <path
        v-for="line in job.laid.lines"
        :key="line.id"
        :d="pathOf(view, line.points, false)"
        :class="['line', line.kind]"
      />
    </svg>
    <figcaption class="quiet">Where the {{ layerWord(layer.kind) }} lies.</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
}
pattern line {
  stroke: var(--tide);
  stroke-width: 1.6;
}
.part {
  fill: #fbfaf6;
  fill-rule: evenodd;
  stroke: var(--ink);
}
.covered {
  fill: url(#laid);
  fill-rule: evenodd;
  stroke: var(--tide);
}
.off {
  fill: #fbfaf6;
  stroke: var(--tide);
  stroke-dasharray: 3 2;
}
.line {
  fill: none;
  stroke: var(--resin);
  stroke-width: 2.4;
}
.line.vent {
  stroke: var(--tide);
}
figcaption {
  font-size: 12px;
}
</style>
