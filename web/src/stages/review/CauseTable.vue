<script setup lang="ts">
import type { CauseEdits } from '@wick/contract/shop';
import { likelihoodsOf, priorsOf } from '@wick/plan/review/causes/rank-run';
import { causeIds, causes, questions, type CauseId, type QuestionRow } from '@wick/plan/review/causes/table';
import { Button } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { useReview } from './review.ts';

/** How causes are told apart: how often each is the one, and how likely each makes an answer. All of it is the workshop's to edit. */
const review = useReview();
const shop = useShopStore();
const questionId = ref(questions[0]!.id);
const question = computed(() => questions.find(({ id }) => id === questionId.value)!);
const options = questions.map(({ id, ask }) => ({ value: id, label: ask }));
const edits = computed(() => shop.shop.causes as CauseEdits);
const priors = computed(() => priorsOf(review.causeBook));
const given = computed(() => likelihoodsOf(question.value, review.causeBook));
const percent = (share: number) => Math.round(100 * share);
const key = (row: QuestionRow, causeId: CauseId) => `${row.id} ${causeId}`;

const save = (causeEdits: CauseEdits) => shop.save({ ...shop.shop, causes: causeEdits });
const read = (event: Event): number | null => {
  const value = Number((event.target as HTMLInputElement).value.replace(',', '.').replace('%', ''));
  return value >= 0 && value <= 100 ? value / 100 : null;
};
function setPrior(causeId: CauseId, event: Event) {
  const value = read(event);
  if (value !== null && value > 0)
    void save({ ...edits.value, priors: { ...edits.value.priors, [causeId]: value } });
  else (event.target as HTMLInputElement).value = `${percent(priors.value.get(causeId)!)}`;
}
/** One answer's share; the others of the cause keep their proportions. */
function setLikelihood(causeId: CauseId, answerId: string, event: Event) {
  const value = read(event);
  if (value === null) {
    (event.target as HTMLInputElement).value = `${percent(given.value.get(answerId)!.get(causeId)!)}`;
    return;
  }
  const rest = question.value.answers
    .filter(({ id }) => id !== answerId)
    .map(({ id }) => [id, given.value.get(id)!.get(causeId)!] as const);
  const total = rest.reduce((sum, [, p]) => sum + p, 0);
  const row = Object.fromEntries([
    [answerId, value],
    ...rest.map(
      ([id, p]) => [id, total > 0 ? ((1 - value) * p) / total : (1 - value) / rest.length] as const,
    ),
  ]);
  void save({
    ...edits.value,
    likelihoods: { ...edits.value.likelihoods, [key(question.value, causeId)]: row },
  });
}
const isEdited = (causeId: CauseId) => key(question.value, causeId) in edits.value.likelihoods;
function setBack() {
  const likelihoods = Object.fromEntries(
    Object.entries(edits.value.likelihoods).filter(([name]) => !name.startsWith(`${questionId.value} `)),
  );
  void save({ ...edits.value, likelihoods });
}
const hasEdits = computed(() => causeIds.some(isEdited));
</script>

<template>
  <p class="quiet">
    Of a hundred parts with each cause, in how many the answer would be this. The start is common practice;
    parts whose cause you named are drawn in by themselves ({{ review.causeBook.before.length }} so far).
  </p>
  <div class="tools">
    <Choice v-model:value="questionId" :options="options" aria-label="Question" />
    <Button v-if="hasEdits" size="small" @click="setBack">As it came</Button>
  </div>
  <table class="sheet" aria-label="How causes are told">
    <thead>
      <tr>
        <th>Cause</th>
        <th>Of 100 troubled parts</th>
        <th v-for="answer in question.answers" :key="answer.id">{{ answer.label }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="causeId in causeIds" :key="causeId">
        <td>{{ causes[causeId].name }}<span v-if="isEdited(causeId)" class="quiet"> (yours)</span></td>
        <td>
          <input
            class="number"
            :value="percent(priors.get(causeId)!)"
            :aria-label="`${causes[causeId].name}: of a hundred troubled parts`"
            inputmode="decimal"
            @change="setPrior(causeId, $event)"
          />
        </td>
        <td v-for="answer in question.answers" :key="answer.id">
          <input
            class="number"
            :value="percent(given.get(answer.id)!.get(causeId)!)"
            :aria-label="`${causes[causeId].name}: ${answer.label}`"
            inputmode="decimal"
            @change="setLikelihood(causeId, answer.id, $event)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
input.number {
  width: 54px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  color: var(--ink);
  padding: 2px 6px;
  text-align: right;
}
table {
  margin-top: 8px;
}
</style>
