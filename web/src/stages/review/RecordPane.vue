<script setup lang="ts">
import { outcomes, type PartOutcome } from '@wick/contract/run/review-bodies';
import { bookedOf } from '@wick/plan/review/book';
import { outcomeNames } from '@wick/plan/review/names';
import { logCsv, logJson } from '@wick/plan/run/log-out';
import { isOf } from '@wick/plan/run/state';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import InputNumber from 'ant-design-vue/es/input-number';
import { computed, ref, watch } from 'vue';
import { useCard, useRun, useSession } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import Choice from '../../ui/Choice.vue';
import { saveFile } from '../../ui/save-file.ts';
import { useLog } from '../common/use-log.ts';
import { useReview } from './review.ts';

/** What became of the part, into the shop's book; who signs; and all of it as files. */
const run = useRun();
const job = useSession();
const work = useCard();
const review = useReview();
const { writing } = useLog();
const outcome = ref<PartOutcome>('good');
const cost = ref<number | undefined>(undefined);
const as = ref('');
const paper = ref('A4');
const isKeeping = ref(false);
const choices = outcomes.map((value) => ({ value, label: outcomeNames[value] }));
watch(
  () => review.booked,
  (entry) => {
    if (!entry) return;
    outcome.value = entry.body.figures.outcome;
    cost.value = entry.body.figures.cost ?? undefined;
  },
  { immediate: true },
);
const signed = computed(() => run.state.entries.filter(isOf('signed')));
/** Said since it was put into the book: what stands there is no longer all of it. */
const isStale = computed(() => {
  const at = review.booked && Date.parse(review.booked.at);
  const kinds = [
    'finding',
    'weighed',
    'gauged',
    'burned',
    'cupRead',
    'gelled',
    'told',
    'causeNamed',
    'struck',
  ];
  return (
    at !== null &&
    run.state.entries.some((entry) => kinds.includes(entry.body.kind) && Date.parse(entry.at) > at)
  );
});
async function keep() {
  if (!review.job) return;
  isKeeping.value = true;
  await run.say(
    bookedOf({
      ...{ job: review.job, mould: work.basis?.mould ?? null, state: run.state, fill: review.fill },
      ...{ compared: review.compared, answers: review.answers, evidence: review.evidence },
      causes: review.hasTrouble ? review.causes.ranked : [],
      ...{ outcome: outcome.value, cost: cost.value ?? null },
    }),
  );
  isKeeping.value = false;
}
async function sign() {
  if (as.value.trim() === '' || run.by.trim() === '') return;
  await run.say({ kind: 'signed', as: as.value.trim() });
  as.value = '';
}
const name = computed(() => `${job.document.name} ${run.run?.kind ?? 'run'} ${run.run?.number ?? ''}`);
const csv = () =>
  saveFile(`${name.value} record.csv`, new Blob([logCsv(run.entries, writing.value)], { type: 'text/csv' }));
const json = () =>
  run.run &&
  saveFile(
    `${name.value} record.json`,
    new Blob([logJson(run.run, run.entries)], { type: 'application/json' }),
  );
const when = (at: string) => new Date(at).toLocaleString('sv-SE').slice(0, 16);
</script>

<template>
  <p v-if="!run.run" class="quiet">Begin a part, or choose one: its record is made here.</p>
  <template v-else>
    <h3>What became of it</h3>
    <div class="tools form">
      <label
        ><span class="quiet">The part is</span
        ><Choice v-model:value="outcome" :options="choices" aria-label="What became of the part"
      /></label>
      <label
        ><span class="quiet">Lost by it, in your money</span
        ><InputNumber v-model:value="cost" :min="0" :max="1e8" aria-label="Lost by it"
      /></label>
      <Button type="primary" :loading="isKeeping" :disabled="review.isWorking" @click="keep">{{
        review.booked ? 'Put it into the book anew' : 'Put it into the book'
      }}</Button>
    </div>
    <p v-if="review.booked" :class="isStale ? 'ember' : 'moss'" data-testid="booked">
      In the book since {{ when(review.booked.at) }}, by {{ review.booked.by || 'nobody named' }}:
      {{ outcomeNames[review.booked.body.figures.outcome] }}.
      <template v-if="isStale">More was said since: put it in anew.</template>
    </p>
    <p v-else class="quiet">
      Not in the book yet: neither the record nor the workshop’s charts know what came of it.
    </p>
    <h3>Signed</h3>
    <ol v-if="signed.length > 0" data-testid="signed">
      <li v-for="entry in signed" :key="entry.id">
        {{ entry.by }}, as {{ entry.body.as }}, {{ when(entry.at) }}
      </li>
    </ol>
    <form class="tools" @submit.prevent="sign">
      <Input
        v-model:value="as"
        class="as"
        placeholder="as what: laminator, inspector …"
        aria-label="Signed as"
        :maxlength="40"
      />
      <Button html-type="submit" :disabled="as.trim() === '' || run.by.trim() === ''">{{
        run.by.trim() === '' ? 'Sign: say your name above first' : `${run.by} signs`
      }}</Button>
    </form>
    <p class="quiet">
      A signature says who looked. It certifies nothing: licensed practice and local rules do.
    </p>
    <h3>The record as files</h3>
    <div class="tools">
      <Choice
        v-model:value="paper"
        class="paper"
        :options="[
          { value: 'A4', label: 'A4' },
          { value: 'Letter', label: 'Letter' },
        ]"
        aria-label="Paper"
      />
      <a class="pdf" :href="api.reportFile(run.run.id, paper)" target="_blank" rel="noopener">Open as PDF</a>
      <Button @click="csv">CSV of all that was said</Button>
      <Button @click="json">JSON of all of it</Button>
    </div>
    <p v-if="run.waitingCount > 0" class="ember">What this device has not sent yet is not in the PDF.</p>
  </template>
</template>

<style scoped>
.form {
  align-items: end;
  gap: 12px;
}
.form label span {
  display: block;
  font-size: 13px;
}
.paper {
  width: 110px;
}
.as {
  width: 260px;
}
.pdf {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
  border: 1px solid var(--edge);
  border-radius: 3px;
  padding: 0 12px;
  text-decoration: none;
  color: var(--ink);
}
ol {
  margin: 0 0 8px;
  padding-left: 18px;
}
</style>
