<script setup lang="ts">
import { boundsOf } from '@wick/core/geometry/polygon';
import type { PlanSketch } from '@wick/contract/api';
import { computed } from 'vue';
import { fitViewport, pathOf } from '../../board/viewport.ts';

/** A plan as large as a stamp: part with holes, zones, feeds and vents. */
const props = defineProps<{ sketch: PlanSketch }>();
const size = { width: 132, height: 58 };
const view = computed(() => fitViewport(boundsOf(props.sketch.outline), size, 4));
const part = computed(() =>
  [props.sketch.outline, ...props.sketch.holes].map((ring) => pathOf(view.value, ring, true)).join(''),
);
const paths = (list: readonly (readonly { x: number; y: number }[])[], closed: boolean) =>
  list.map((points) => pathOf(view.value, points, closed)).join('');
</script>

<template>
  <svg v-bind="size" aria-hidden="true">
    <path :d="part" fill="#f2dfb4" fill-rule="evenodd" stroke="var(--ink)" />
    <path :d="paths(sketch.zones, true)" fill="#c7770022" stroke="#8b8474" stroke-width="0.7" />
    <path
      :d="paths(sketch.feeds, false)"
      fill="none"
      stroke="var(--resin)"
      stroke-width="2.4"
      stroke-linecap="round"
    />
    <path
      :d="paths(sketch.vents, false)"
      fill="none"
      stroke="var(--tide)"
      stroke-width="2.4"
      stroke-linecap="round"
    />
  </svg>
</template>
