<script setup lang="ts">
import { callOf, type NextAction } from '@wick/plan/infusion/next-action';
import { rangeWords } from '@wick/plan/infusion/words';
import { formatClock } from '@wick/core/units/format';
import Button from 'ant-design-vue/es/button';
import { computed, watch } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { soundTone } from '../../ui/tone.ts';
import { useTicking } from '../../ui/use-ticking.ts';
import { useLive } from './live.ts';
import { useWork } from './use-work.ts';

/** What is next, across the screen: its trigger, its minute, one tap. It calls three minutes ahead, one minute ahead, and now. */
const run = useRun();
const live = useLive();
const { turned } = useWork();
const wall = useTicking(run.now);
const since = computed(() =>
  live.infusion?.contactAt == null ? null : (wall.value - live.infusion.contactAt) / 1000,
);
const first = computed((): NextAction | null => live.actions[0] ?? null);
const others = computed(() => live.actions.slice(1, 4));
const call = computed(() => (first.value && since.value !== null ? callOf(first.value, since.value) : null));
const TONES = { 180: 300, 60: 600, 0: 1200 } as const;
watch([() => first.value?.id, call], ([id, now], [idBefore, before]) => {
  const isNews = now !== null && (id !== idBefore || before === null || now < before);
  if (isNews && run.run && !run.run.endedAt) soundTone(TONES[now]);
});
const left = computed(() => {
  const at = first.value?.at;
  if (!at || since.value === null || at.middle === Infinity) return null;
  const seconds = at.middle - since.value;
  return seconds > 0 ? `in ${formatClock(seconds)}` : `${formatClock(-seconds)} ago`;
});
async function finish(action: NextAction) {
  for (const body of action.says) {
    await run.say(body);
    if (body.kind === 'valve') await turned(body);
  }
}
const minute = ({ at }: NextAction) => (at ? `at ${rangeWords(at)}` : '');
</script>

<template>
  <section :class="['now', call === 0 ? 'due' : call === null ? 'ahead' : 'soon']" data-testid="next-action">
    <div class="clock">
      <b class="number" data-testid="since-contact">{{ since === null ? '–' : formatClock(since) }}</b>
      <small>since first mix</small>
    </div>
    <div v-if="first" class="what">
      <p class="title">{{ first.title }}</p>
      <p>{{ first.trigger }}</p>
      <p v-if="first.at" class="when">
        <b>{{ left }}</b> <span>{{ minute(first) }}</span>
      </p>
    </div>
    <p v-else class="title what">Nothing more to turn: vacuum, and a watch by name.</p>
    <Button v-if="first" type="primary" class="done" :disabled="!run.run" @click="finish(first)">{{
      first.done
    }}</Button>
    <ol v-if="others.length > 0" class="then">
      <li v-for="one in others" :key="one.id">
        <span class="quiet">then</span> {{ one.title }} <span class="quiet">{{ minute(one) }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.now {
  position: sticky;
  top: -1px;
  z-index: 2;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 4px 20px;
  align-items: center;
  padding: 10px 16px;
  background: var(--sheet);
  border-left: 8px solid var(--edge);
}
.soon {
  border-left-color: var(--resin);
}
.due {
  border-left-color: var(--ember);
  outline: 2px solid var(--ember);
}
.clock .number {
  font: 600 40px/1 var(--display);
  display: block;
  min-width: 110px;
}
.clock small {
  color: var(--quiet);
}
p {
  margin: 0;
}
.title {
  font: 600 28px/1.1 var(--display);
}
.when {
  font-size: 18px;
}
.when b {
  font: 600 22px var(--display);
  margin-right: 8px;
}
.done {
  min-width: 150px;
  min-height: 64px !important;
  font-size: 20px !important;
}
.then {
  grid-column: 1 / -1;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 24px;
  margin: 0;
  padding: 0;
}
@media (max-width: 760px) {
  .now {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
