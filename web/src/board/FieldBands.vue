<script setup lang="ts">
import type { FieldBand } from './fields.ts';
import { pathOfRings, type Viewport } from './viewport.ts';

/** A quantity over the plan in bands. */
defineProps<{ view: Viewport; bands: readonly FieldBand[] }>();
</script>

<template>
  <path
    v-for="band in bands"
    :key="band.from"
    :d="pathOfRings(view, band.rings)"
    :fill="band.colour"
    fill-rule="evenodd"
    stroke="#fbfaf6"
    stroke-width="0.7"
  />
</template>
