<script setup lang="ts">
import type { Phase } from '@wick/contract/steps';
import { heldBy } from '@wick/plan/card/progress';
import type { CardPhase } from '@wick/plan/card/step';
import { computed } from 'vue';
import { useCard } from '../../compute/use-desk.ts';
import { useWork } from './use-work.ts';

/** All phases in the order of work, with how far each is. */
const props = defineProps<{ phases: readonly CardPhase[]; shown: Phase | null }>();
const emit = defineEmits<{ show: [phase: Phase] }>();
const work = useCard();
const { isSettled } = useWork();
const signs = computed(() =>
  props.phases.map(({ phase, name, steps }) => {
    const done = steps.filter(({ id }) => isSettled(id)).length;
    const isHeld = work.progress !== null && done < steps.length && heldBy(work.progress, phase) !== null;
    // A hold that nothing has come up to yet alarms nobody.
    const isNow = phase === work.progress?.next?.phase;
    const state = done === steps.length ? 'done' : isHeld && isNow ? 'held' : done > 0 ? 'begun' : 'open';
    return { phase, name, state, note: isHeld ? 'hold' : `${done}/${steps.length}` };
  }),
);
</script>

<template>
  <nav class="strip" aria-label="Phases">
    <button
      v-for="{ phase, name, state, note } in signs"
      :key="phase"
      :class="['plain', state, { here: phase === shown }]"
      :aria-current="phase === shown ? 'step' : undefined"
      @click="emit('show', phase)"
    >
      {{ name }} <span class="number">{{ note }}</span>
    </button>
  </nav>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 10px 0 4px;
}
button.plain {
  min-height: 44px;
  padding: 2px 10px;
  border-top: 4px solid var(--rule);
  font: 500 15px var(--display);
  background: var(--sheet);
}
.done {
  border-top-color: var(--moss) !important;
  color: var(--quiet);
}
.begun {
  border-top-color: var(--resin) !important;
}
.held {
  border-top-color: var(--ember) !important;
}
.here {
  box-shadow: inset 0 -3px var(--ink);
  font-weight: 600;
}
.number {
  font-size: 13px;
  color: var(--quiet);
}
.held .number {
  color: var(--ember);
}
</style>
