<script setup lang="ts">
import { waitsFor } from '@wick/plan/card/progress';
import type { CardStep } from '@wick/plan/card/step';
import { computed } from 'vue';
import { useCard } from '../../compute/use-desk.ts';
import { useWork } from './use-work.ts';

/** Each inside corner of a ply, ticked by itself; of two that lift each other in turn. */
const props = defineProps<{ step: CardStep }>();
const work = useCard();
const { tick, takeBack, isSettled } = useWork();
const ticks = computed(() =>
  props.step.ticks.map((own) => ({
    own,
    isDone: isSettled(own.id),
    waits: work.progress ? waitsFor(props.step, work.progress.settled, own.id) : null,
  })),
);
</script>

<template>
  <ul aria-label="Inside corners">
    <li v-for="{ own, isDone, waits } in ticks" :key="own.id">
      <button
        :class="['plain', { done: isDone }]"
        :aria-pressed="isDone"
        :disabled="waits !== null"
        @click="isDone ? takeBack(own.id) : tick(step, own)"
      >
        <span class="box" aria-hidden="true">{{ isDone ? '☑' : '☐' }}</span> {{ own.what }}
        <small v-if="waits" class="quiet">after {{ waits }}</small>
      </button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
button.plain {
  min-height: 44px;
  padding: 4px 12px;
  border: 1px solid var(--edge);
  border-radius: 3px;
}
button.done {
  border-color: var(--moss);
  color: var(--moss);
}
button:disabled {
  opacity: 0.65;
  cursor: default;
}
.box {
  display: inline-block;
  width: 22px;
  font-weight: 600;
}
</style>
