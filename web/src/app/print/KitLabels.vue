<script setup lang="ts">
import type { TakenItem } from '@wick/plan/takeoff/taken';
import { phaseWords, unitWords } from '@wick/plan/takeoff/sheet';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import CodePicture from '../../ui/CodePicture.vue';

/** A label a thing, in order of use, each with the way back to the job. */
defineProps<{ items: readonly TakenItem[] }>();
const job = useSession();
const way = computed(() => `${location.origin}/jobs/${job.id}/stack?pane=take-off`);
const amount = (value: number) => (Math.round(100 * value) / 100).toString();
</script>

<template>
  <div class="labels" data-testid="labels">
    <div v-for="(item, n) in items" :key="`${item.name} ${item.why}`" class="label">
      <CodePicture class="code" :text="way" label="Way to the job" :size="64" />
      <div>
        <b class="number">{{ n + 1 }}</b> {{ item.name }}<br />
        <span class="number">{{ amount(item.amount) }} {{ unitWords[item.unit] }}</span
        ><br />
        <small>{{ job.laid.name }} · {{ phaseWords[item.phase] }}</small>
      </div>
    </div>
  </div>
</template>

<style scoped>
.labels {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 3mm;
}
.label {
  display: flex;
  gap: 2mm;
  border: 0.3mm solid #777;
  padding: 2mm;
  font-size: 3.4mm;
  break-inside: avoid;
}
.code {
  width: 17mm;
  height: 17mm;
}
</style>
