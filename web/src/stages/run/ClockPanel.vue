<script setup lang="ts">
import type { RunTimer } from '@wick/plan/card/timers';
import { formatClock } from '@wick/core/units/format';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useCard, useRun } from '../../compute/use-desk.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { dayClock } from '../../ui/day-clock.ts';

/** Every clock that runs, the one due first at the top, and one of one's own. */
const run = useRun();
const work = useCard();
const HOUR = 3600;
const span = (seconds: number) =>
  seconds < HOUR
    ? formatClock(seconds)
    : `${Math.floor(seconds / HOUR)} h ${Math.round((seconds % HOUR) / 60)} min`;
const since = (at: number) => Math.max(0, (work.now - at) / 1000);
const until = (at: number) => Math.max(0, (at - work.now) / 1000);

function wordsOf({ state, opensAt, closesAt }: RunTimer): { large: string; small: string } {
  if (state === 'waiting') return { large: span(until(opensAt)), small: `at ${dayClock(opensAt)}` };
  if (state === 'closed')
    return { large: 'closed', small: `${span(since(closesAt!))} ago, at ${dayClock(closesAt!)}` };
  return closesAt === null
    ? { large: 'now', small: `since ${span(since(opensAt))}` }
    : { large: span(until(closesAt)), small: `left, closes at ${dayClock(closesAt)}` };
}
const clocks = computed(() =>
  (work.progress?.timers ?? []).map((timer) => ({ timer, words: wordsOf(timer) })),
);

const word = ref('');
const lasts = ref<number | null>(null);
const isOpen = ref(false);
async function set() {
  if (lasts.value === null || word.value.trim() === '') return;
  await run.say({
    ...{ kind: 'timer', word: word.value.trim(), stepId: null, endsWith: null },
    ...{ opens: lasts.value, closes: null, slides: null },
  });
  [word.value, lasts.value, isOpen.value] = ['', null, false];
}
</script>

<template>
  <section aria-label="Clocks" data-testid="clocks">
    <h3>Clocks</h3>
    <p v-if="clocks.length === 0" class="quiet">None runs.</p>
    <ul>
      <li v-for="{ timer, words } in clocks" :key="timer.id" :class="timer.state">
        <span class="word">{{ timer.word }}</span>
        <b class="number">{{ words.large }}</b>
        <small>{{ words.small }}<template v-if="timer.slides">, by temperature</template></small>
        <Button size="small" type="text" @click="run.say({ kind: 'timerEnds', timerId: timer.id })"
          >End</Button
        >
      </li>
    </ul>
    <Button v-if="!isOpen" @click="isOpen = true">Set a clock …</Button>
    <form v-else @submit.prevent="set">
      <Input v-model:value="word" placeholder="what for" aria-label="What the clock is for" :maxlength="80" />
      <QuantityInput
        v-model="lasts"
        label="After"
        quantity="duration"
        unit="min"
        optional
        :limits="{ above: 0, below: 1e6 }"
      />
      <Button html-type="submit" :disabled="lasts === null || word.trim() === ''">Start it</Button>
    </form>
  </section>
</template>

<style scoped>
h3 {
  margin-top: 0;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  border-left: 4px solid var(--edge);
  padding: 2px 0 2px 10px;
  margin-bottom: 6px;
  align-items: center;
}
li.open {
  border-color: var(--moss);
}
li.closing {
  border-color: var(--resin);
}
li.closed {
  border-color: var(--ember);
}
.word {
  font-weight: 600;
}
.number {
  font-size: 24px;
  line-height: 1.1;
  text-align: right;
}
.closed .number {
  color: var(--ember);
}
.open .number {
  color: var(--moss);
}
small {
  color: var(--quiet);
}
form {
  display: grid;
  gap: 8px;
}
</style>
