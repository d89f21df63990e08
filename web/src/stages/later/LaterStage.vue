<script setup lang="ts">
import type { Stage } from '../stage.ts';

defineProps<{ stage: Stage }>();
</script>

<template>
  <div class="later">
    <h1>{{ stage.question }}</h1>
    <p class="sign">Not yet in this version.</p>
    <p>{{ stage.later }}</p>
  </div>
</template>

<style scoped>
.later {
  padding: 14px 24px;
  max-width: 640px;
}
.sign {
  font: 600 16px var(--display);
  color: var(--quiet);
}
</style>
