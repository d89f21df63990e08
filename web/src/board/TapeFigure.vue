<script setup lang="ts">
import type { JobFeature } from '@wick/contract/job/job';
import type { Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import { pathOf, type Viewport } from './viewport.ts';

/** The part with the sealant tape round it, and the lines where it rises, steps or turns in. */
const props = defineProps<{
  view: Viewport;
  /** Outline and holes, arcs as chords. */
  rings: readonly (readonly Point[])[];
  /** Middle of the tape; empty where none is laid. */
  tapeLine: readonly Point[];
  features: readonly JobFeature[];
}>();
const part = computed(() => props.rings.map((ring) => pathOf(props.view, ring, true)).join(''));
</script>

<template>
  <path :d="part" class="part" />
  <path v-if="tapeLine.length > 0" :d="pathOf(view, tapeLine, true)" class="tape" />
  <path
    v-for="feature in features"
    :key="feature.id"
    :d="pathOf(view, feature.points, false)"
    :class="['feature', feature.kind]"
  />
</template>

<style scoped>
.part {
  fill: #fbfaf6;
  fill-rule: evenodd;
  stroke: var(--ink);
}
.tape {
  fill: none;
  stroke: #a99f88;
  stroke-width: 4;
}
.feature {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.feature.insideCorner {
  stroke-dasharray: 5 3;
}
</style>
