<script setup lang="ts">
import type { Label } from './use-labels.ts';

/** A name beside the figure that it is drawn within. */
defineProps<{ label: Label | undefined }>();
</script>

<template>
  <text v-if="label" :x="label.dx" :y="label.dy" :text-anchor="label.anchor">{{ label.words }}</text>
</template>

<style scoped>
text {
  font: 600 13px var(--display);
  fill: var(--label, var(--ink));
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3.5px;
  pointer-events: none;
}
</style>
