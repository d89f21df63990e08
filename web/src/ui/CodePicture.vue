<script setup lang="ts">
import { renderSVG } from 'uqr';
import { computed } from 'vue';

/** A text as a code that a camera reads. */
const props = defineProps<{ text: string; label: string; size: number }>();
const source = computed(
  () => `data:image/svg+xml,${encodeURIComponent(renderSVG(props.text, { border: 1 }))}`,
);
</script>

<template>
  <img :src="source" :alt="label" :width="size" :height="size" />
</template>
