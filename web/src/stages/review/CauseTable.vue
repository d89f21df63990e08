<script setup lang="ts">
import type { CauseEdits } from '@wick/contract/shop';
import { likelihoodsOf, priorsOf } from '@wick/plan/review/causes/rank-run';
import { causeIds, causes, questions, type CauseId, type QuestionRow } from '@wick/plan/review/causes/table';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
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
const key = (row: QuestionRow, causeId: CauseId) => `${row.id} ${causeId}`;

const save = (causeEdits: CauseEdits) => shop.save({ ...shop.shop, causes: causeEdits });
const setPrior = (causeId: CauseId, value: number | null) =>
  value !== null && save({ ...edits.value, priors: { ...edits.value.priors, [causeId]: value } });
/** One answer's share; the others of the cause keep their proportions. */
function setLikelihood(causeId: CauseId, answerId: string, value: number | null) {
  if (value === null) return;
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
    Of the parts with each cause, for how many the answer would be this. The start is common practice; parts
    whose cause you named are drawn in by themselves ({{ review.causeBook.before.length }} so far).
  </p>
  <div class="tools">
    <Choice v-model:value="questionId" :options="options" aria-label="Question" />
    <Button v-if="hasEdits" size="small" @click="setBack">As it came</Button>
  </div>
  <table class="sheet" aria-label="How causes are told">
    <thead>
      <tr>
        <th>Cause</th>
        <th>Of troubled parts</th>
        <th v-for="answer in question.answers" :key="answer.id">{{ answer.label }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="causeId in causeIds" :key="causeId">
        <td>{{ causes[causeId].name }}<span v-if="isEdited(causeId)" class="quiet"> (yours)</span></td>
        <td>
          <QuantityInput
            :model-value="priors.get(causeId)!"
            :label="`${causes[causeId].name}: of troubled parts`"
            hide-label
            quantity="fraction"
            :limits="{ above: 0, atMost: 1 }"
            @update:model-value="setPrior(causeId, $event)"
          />
        </td>
        <td v-for="answer in question.answers" :key="answer.id">
          <QuantityInput
            :model-value="given.get(answer.id)!.get(causeId)!"
            :label="`${causes[causeId].name}: ${answer.label}`"
            hide-label
            quantity="fraction"
            :limits="{ atLeast: 0, atMost: 1 }"
            @update:model-value="setLikelihood(causeId, answer.id, $event)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td :deep(input) {
  width: 76px;
}
table {
  margin-top: 8px;
}
</style>
