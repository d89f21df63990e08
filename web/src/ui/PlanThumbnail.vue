<script setup lang="ts">
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import { fitViewport, pathOf } from '../board/viewport.ts';

const props = defineProps<{ outline: readonly Point[] }>();
const size = { width: 110, height: 46 };
const path = computed(() => pathOf(fitViewport(boundsOf(props.outline), size, 3), props.outline, true));
</script>

<template>
  <svg v-bind="size" aria-hidden="true"><path :d="path" fill="#f2dfb4" stroke="var(--ink)" /></svg>
</template>
