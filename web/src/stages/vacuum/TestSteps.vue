<script setup lang="ts">
import { waitWords } from '@wick/plan/vacuum/words';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';

/** The steps of a drop test, and where it stands. @prop now ms since 1970, by the clock of the run */
const props = defineProps<{ now: number }>();
const bench = useBench();
const run = useRun();
const shop = useShopStore();

const steps = computed(() => {
  const { valve, valveSince, pulls } = run.state;
  const [isPulling, isShut] = [valve === 'pull', valve === 'shut'];
  const since = `since ${waitWords(Math.max(0, (props.now - (valveSince ?? props.now)) / 1000))}`;
  const above = shop.show(Math.max(0, (bench.pressure ?? 0) - bench.reach.best), 'absolutePressure');
  return [
    { name: 'Pull', done: pulls.length > 0, here: isPulling, note: isPulling ? since : '' },
    {
      ...{ name: 'Wait', done: isShut, here: isPulling },
      note: isPulling && bench.pressure !== null ? `${above} above the best` : '',
    },
    { name: 'Shut', done: isShut, here: isShut, note: isShut ? since : '' },
    {
      ...{ name: 'Read', done: bench.drop !== null, here: isShut },
      note: bench.drop ? `${bench.drop.count} readings` : '',
    },
    {
      ...{ name: 'Judge', done: Boolean(bench.test?.judged), here: false },
      note: bench.test?.judged ? 'written down' : '',
    },
  ];
});
</script>

<template>
  <ol aria-label="Steps of the test">
    <li v-for="step in steps" :key="step.name" :class="{ done: step.done, here: step.here }">
      <b>{{ step.name }}</b> <span class="quiet">{{ step.note }}</span>
    </li>
  </ol>
</template>

<style scoped>
ol {
  display: flex;
  list-style: none;
  margin: 10px 0 6px;
  padding: 0;
  counter-reset: step;
}
li {
  flex: 1;
  border-top: 3px solid var(--rule);
  padding: 3px 8px 0 0;
  counter-increment: step;
  font-size: 13px;
}
b::before {
  content: counter(step) ' ';
  font-weight: 400;
  color: var(--quiet);
}
.done {
  border-top-color: var(--moss);
}
.here {
  border-top-color: var(--tide);
}
</style>
