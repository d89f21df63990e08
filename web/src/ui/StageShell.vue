<script setup lang="ts">
/** A stage: its question over the bench where the work is done, and the answer beside it. */
defineProps<{ question: string }>();
</script>

<template>
  <div class="stage">
    <section class="bench">
      <div class="head">
        <h1>{{ question }}</h1>
        <slot name="tools" />
      </div>
      <slot />
    </section>
    <aside class="answer" tabindex="0" aria-label="Answer"><slot name="answer" /></aside>
  </div>
</template>
