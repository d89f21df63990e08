<script setup lang="ts">
import type { LessonTarget } from '@wick/contract/run/review-bodies';
import {
  editOfLesson,
  knownChanges,
  withLessonNote,
  withLessonStep,
  type KnownChange,
} from '@wick/plan/review/lessons';
import { targetNames } from '@wick/plan/review/names';
import { jobSchema } from '@wick/contract/job/job';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useStepsStore } from '../../data/steps-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { useQuestion } from '../common/use-question.ts';
import { useReview, type Review } from './review.ts';

/** What changes for the next part: lessons, each a change of plan, stack, steps or mould, taken into a copy by one click. */
const run = useRun();
const job = useSession();
const review = useReview();
const shop = useShopStore();
const steps = useStepsStore();
const moulds = useMouldStore();
const router = useRouter();
onMounted(() => {
  if (!steps.stored) void steps.load();
  if (!moulds.moulds) void moulds.load();
});
const { isAsking, message, ask } = useQuestion();
const amounts = ref<Record<string, number>>({});
const text = ref('');
const target = ref<LessonTarget>('plan');
const targets = (['plan', 'stack', 'steps', 'mould', 'library'] as const).map((value) => ({
  value,
  label: targetNames[value],
}));

type Lesson = Review['lessons'][number];
const isThere = (change: KnownChange) => review.lessons.some(({ entry }) => entry.body.change === change.id);
/** Those that answer the likeliest causes first. */
const suggested = computed(() => {
  const order = review.causes.ranked.slice(0, 3).map(({ id }) => id);
  const rank = ({ answers }: KnownChange) =>
    Math.min(...answers.map((id) => (order.includes(id) ? order.indexOf(id) : order.length)));
  return knownChanges
    .filter((change) => !isThere(change))
    .sort((a, b) => rank(a) - rank(b))
    .map((change) => ({ change, isLikely: review.hasTrouble && rank(change) < order.length }));
});
const amountOf = (change: KnownChange) => amounts.value[change.id] ?? change.amount?.usual ?? null;
function write(change: KnownChange) {
  const amount = amountOf(change);
  const words = change.amount && amount !== null ? `: ${shop.show(amount, change.amount.quantity)}` : '';
  return run.say({
    ...{ kind: 'lesson', target: change.target, change: change.id, amount },
    text: `${change.title}${words}`,
  });
}
async function writeWords() {
  if (text.value.trim() === '') return;
  await run.say({
    kind: 'lesson',
    target: target.value,
    text: text.value.trim(),
    change: null,
    amount: null,
  });
  text.value = '';
}
const open = computed(() => review.lessons.filter(({ settled }) => settled === null));
const settle = (lesson: Lesson, is: 'taken' | 'dropped', jobId: string | null = null) =>
  run.say({ kind: 'lessonSettled', lessonId: lesson.id, is, jobId });
const today = () => new Date().toLocaleDateString('sv-SE');

/** Steps and mould are changed where they are; what is about the plan goes into a copy of the job. */
const takeAll = () =>
  ask(async () => {
    const edits = open.value.flatMap((lesson) => {
      const edit = editOfLesson(lesson, shop.shop);
      return edit ? [{ lesson, edit }] : [];
    });
    const copy = await api.addJob({ copyOf: job.id });
    const document = jobSchema.parse(edits.reduce((own, { edit }) => edit(own), copy.document));
    await api.writeJob(copy.id, copy.revision, { ...document, name: nameOf(job.document.name) });
    for (const lesson of open.value) {
      const isDone = await takeElsewhere(lesson);
      if (isDone || edits.some((one) => one.lesson.id === lesson.id)) await settle(lesson, 'taken', copy.id);
    }
    await router.push(`/jobs/${copy.id}/lines`);
  });
const nameOf = (name: string) => (name.length > 60 ? name : `${name}, learned`);
/** @returns whether it was about steps or mould, and is there now */
async function takeElsewhere({ change, entry }: Lesson): Promise<boolean> {
  if (change?.step && steps.stored)
    return steps.save(withLessonStep(steps.stored.steps, { step: change.step }), run.by);
  if (entry.body.target !== 'mould') return false;
  const mould = moulds.find(review.job?.mould?.id)?.mould;
  return mould ? moulds.save(withLessonNote(mould, entry.body.text, today())) : false;
}
</script>

<template>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
  <h3>Lessons of this part</h3>
  <p v-if="review.lessons.length === 0" class="quiet">
    None yet. Write down what the next one should do otherwise.
  </p>
  <ol v-else data-testid="lessons">
    <li v-for="lesson in review.lessons" :key="lesson.id">
      <span class="quiet">{{ targetNames[lesson.entry.body.target] }}</span>
      <span :class="{ over: lesson.settled?.is === 'dropped' }">{{ lesson.entry.body.text }}</span>
      <span v-if="lesson.settled" class="moss">{{
        lesson.settled.is === 'taken' ? 'taken' : 'set aside'
      }}</span>
      <Button v-else size="small" type="text" @click="settle(lesson, 'dropped')">Set aside</Button>
    </li>
  </ol>
  <div class="tools">
    <Button type="primary" :loading="isAsking" :disabled="open.length === 0" @click="takeAll"
      >Take them into a copy of the job</Button
    >
    <span class="quiet"
      >Steps and mould are changed where they are kept; words alone stay open and are shown with alike
      jobs.</span
    >
  </div>
  <form class="tools words" @submit.prevent="writeWords">
    <label
      ><span class="quiet">For</span
      ><Choice v-model:value="target" :options="targets" aria-label="What the lesson is for"
    /></label>
    <Input
      v-model:value="text"
      class="text"
      placeholder="in your own words"
      aria-label="Lesson in your own words"
      :maxlength="1000"
    />
    <Button html-type="submit" :disabled="text.trim() === '' || !run.run">Write it down</Button>
  </form>
  <h3>Changes that are made by a click</h3>
  <table class="sheet" aria-label="Known changes" data-testid="changes">
    <tbody>
      <tr v-for="{ change, isLikely } in suggested" :key="change.id">
        <td>
          <b v-if="isLikely">{{ change.title }}</b><template v-else>{{ change.title }}</template>
          <div v-if="change.step" class="quiet">{{ change.step.title }}</div>
        </td>
        <td class="amount">
          <QuantityInput
            v-if="change.amount"
            :model-value="amountOf(change)"
            :label="change.amount.label"
            :quantity="change.amount.quantity"
            @update:model-value="$event !== null && (amounts[change.id] = $event)"
          />
        </td>
        <td class="quiet">{{ targetNames[change.target] }}</td>
        <td>
          <Button size="small" :disabled="!run.run" @click="write(change)">Next time</Button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
ol li {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr) auto;
  gap: 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.over {
  text-decoration: line-through;
}
.words {
  margin: 12px 0;
  align-items: end;
}
.words label span {
  display: block;
  font-size: 13px;
}
.text {
  flex: 1 1 240px;
}
.amount {
  width: 190px;
}
</style>
