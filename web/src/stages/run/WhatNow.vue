<script setup lang="ts">
import { handTurn } from '@wick/plan/infusion/card-valves';
import type { TriedOption } from '@wick/plan/infusion/options';
import Button from 'ant-design-vue/es/button';
import { computed, shallowRef } from 'vue';
import { useRun, useScheduler } from '../../compute/use-desk.ts';
import { useLive } from './live.ts';
import { useQuestion } from '../common/use-question.ts';

/** Every way on, simulated from how the front stands now: when it would be full, what is left, until when it has to be decided. */
const run = useRun();
const live = useLive();
const scheduler = useScheduler();
const tried = shallowRef<readonly TriedOption[]>([]);
const { isAsking, message, ask } = useQuestion();
const workOut = () =>
  ask(async (number) => {
    const asked = live.asked();
    if (!asked) return;
    const key = `options ${run.run?.id} ${number} ${asked.answer.now}`;
    tried.value = await scheduler.want(key, { kind: 'options', asked }, { lane: 'drag' });
  });
const minute = (seconds: number) => Math.round(seconds / 60);
const wait = computed(() => tried.value.find(({ option }) => option.id === 'wait') ?? null);
function endWords({ last, gelTime, wet, shutIn }: TriedOption): string {
  if (last === Infinity) return `${Math.floor(100 * wet)} % wet in the end`;
  const shut = shutIn > 1e-3 ? `, ${Math.round(1e4 * shutIn)} cm² keep air` : '';
  return `full at ${minute(last)} min, ${minute(gelTime - last)} min before gel${shut}`;
}
function gainWords(one: TriedOption): string {
  if (!wait.value || one === wait.value) return '';
  if (one.last < Infinity && wait.value.last === Infinity) return 'fills it';
  const margin = ({ last, gelTime }: TriedOption) => gelTime - last;
  if (one.last < Infinity) {
    const gain = minute(margin(one) - margin(wait.value));
    return gain > 0 ? `${gain} min gained` : gain < 0 ? `${-gain} min lost` : 'no gain';
  }
  return '';
}
async function decide(one: TriedOption) {
  const { id, title, turns, warmer } = one.option;
  await run.say({
    kind: 'decided',
    option: id,
    title,
    gain: `${endWords(one)}${gainWords(one) && `; ${gainWords(one)}`}`,
  });
  for (const { lineId, opening } of turns)
    if (live.job && live.infusion) await run.say(handTurn(live.job, live.infusion, lineId, opening));
  if (warmer > 0 && live.clock)
    await run.say({ kind: 'warming', is: 'blanket', temperature: live.clock.run.temperature + warmer });
  tried.value = [];
}
</script>

<template>
  <section class="what-now">
    <Button
      block
      :loading="isAsking"
      :disabled="!live.answer || live.infusion?.openedAt == null"
      @click="workOut"
      >What now?</Button
    >
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
    <ol v-if="tried.length > 0" data-testid="options">
      <li v-for="one in tried" :key="one.option.id">
        <b>{{ one.option.title }}</b>
        <span :class="one.last === Infinity ? 'ember' : ''">{{ endWords(one) }}</span>
        <span v-if="gainWords(one)" :class="gainWords(one).endsWith('lost') ? 'ember' : 'gain'">{{
          gainWords(one)
        }}</span>
        <small v-if="one.decideBy !== null && one.option.id !== 'giveUp'"
          >decide by {{ minute(one.decideBy) }} min</small
        >
        <small v-if="one.option.caution" class="quiet">{{ one.option.caution }}</small>
        <Button v-if="one.option.id !== 'wait'" @click="decide(one)">Do it</Button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.gain {
  font-weight: 600;
  color: var(--moss);
}
</style>
