<script setup lang="ts">
import { computed } from 'vue';
import { useCard } from '../../compute/use-desk.ts';
import { dayClock } from '../../ui/day-clock.ts';

/** Every hold point, open, shut, or gone past by whom. */
const work = useCard();
const holds = computed(() =>
  (work.progress?.holds ?? []).map((hold) => ({
    hold,
    state: hold.isOpen ? 'open' : hold.overruled ? 'passed' : 'shut',
    isNow: hold.before.some((phase) => phase === work.progress?.next?.phase),
  })),
);
</script>

<template>
  <section v-if="holds.length > 0" aria-label="Hold points" data-testid="holds">
    <h3>Hold points</h3>
    <ul>
      <li v-for="{ hold, state, isNow } in holds" :key="hold.id" :class="[state, { now: isNow }]">
        <span>{{ hold.title }}</span>
        <b>{{ { open: 'open', passed: 'gone past', shut: 'shut' }[state] }}</b>
        <small v-if="state === 'passed'"
          >{{ hold.overruled!.by }}, {{ dayClock(hold.overruled!.at) }}: {{ hold.overruled!.why }}</small
        >
        <small v-else-if="state === 'shut'">{{ hold.why }}</small>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
small {
  grid-column: 1 / -1;
  color: var(--quiet);
}
.open b {
  color: var(--moss);
}
.shut.now b,
.passed b {
  color: var(--ember);
}
</style>
