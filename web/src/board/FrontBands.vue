<script setup lang="ts">
import type { Rings } from '@wick/core/flow/isochrones';
import { polygonOf, type Corner } from '@wick/core/geometry/arcs';
import { computed } from 'vue';
import type { Band } from './bands.ts';
import { pathOf, pathOfRings, type Viewport } from './viewport.ts';

/** The front as bands of equal time, past-gel and dry areas, and the front at the scrubbed minute. */
const props = defineProps<{
  view: Viewport;
  bands: readonly Band[];
  /** Outline and holes of the part. */
  part: readonly (readonly Corner[])[];
  /** Wet at the scrubbed minute; null shows all. */
  wet: Rings | null;
  /** Some of it is never wet: hatched where no band lies. */
  hasDry: boolean;
}>();

/** Everything not wet at the scrubbed minute, faded. */
const ahead = computed(() => {
  if (props.wet === null) return null;
  const part = props.part.map((ring) => pathOf(props.view, polygonOf(ring), true)).join('');
  const front = pathOfRings(props.view, props.wet);
  return { shade: part + front, front };
});
</script>

<template>
  <g>
    <rect v-if="hasDry" width="100%" height="100%" fill="url(#gel-hatch)" />
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
      <path :d="ahead.shade" class="shade" fill-rule="evenodd" opacity="0.78" />
      <path :d="ahead.front" fill="none" stroke="var(--ink)" stroke-width="2" />
    </template>
  </g>
</template>

<style scoped>
.shade {
  fill: var(--plan, #fbfaf6);
}
</style>
