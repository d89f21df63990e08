<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useReview } from './review.ts';

/** The likeliest causes with what speaks for and against each, and the question that tells most. */
const run = useRun();
const review = useReview();
const percent = (belief: number) => `${Math.round(100 * belief)} %`;
const shown = computed(() => review.causes.ranked.slice(0, review.causes.shown));
const named = computed(
  () =>
    run.state.entries.flatMap(({ body }) => (body.kind === 'causeNamed' ? [body.causeId] : [])).at(-1) ??
    null,
);
const nameOf = (id: string) => review.causes.ranked.find((cause) => cause.id === id)?.name ?? id;
const tell = (questionId: string, answer: string) => run.say({ kind: 'told', questionId, answer });
const name = (causeId: string) => run.say({ kind: 'causeNamed', causeId, why: '' });
</script>

<template>
  <section data-testid="causes">
    <h2>Why</h2>
    <p v-if="!run.run" class="quiet">Nothing has been made of this job yet.</p>
    <template v-else>
      <p v-if="review.isWorking" class="quiet">
        {{ review.solvedCount }} of {{ review.wanted }} ways in which it may have run worked out …
      </p>
      <p v-if="!review.hasTrouble" class="moss">
        Nothing speaks of trouble so far. Weigh it, gauge it, look it over.
      </p>
      <template v-else>
        <p v-if="named" class="moss">You named: {{ nameOf(named) }}.</p>
        <ol>
          <li v-for="cause in shown" :key="cause.id" data-testid="cause">
            <div class="row">
              <b>{{ cause.name }}</b><b class="number">{{ percent(cause.belief) }}</b>
            </div>
            <ul>
              <li v-for="words in cause.for.slice(0, 4)" :key="words" class="for">+ {{ words }}</li>
              <li v-for="words in cause.against.slice(0, 3)" :key="words" class="against">− {{ words }}</li>
            </ul>
            <p class="quiet">{{ cause.prevents }}</p>
            <Button v-if="named !== cause.id" size="small" @click="name(cause.id)">It was this</Button>
          </li>
        </ol>
        <template v-if="review.causes.next">
          <h2>What tells most</h2>
          <p data-testid="next-question">{{ review.causes.next.question.ask }}</p>
          <div class="tools">
            <Button
              v-for="answer in review.causes.next.question.answers"
              :key="answer.id"
              size="small"
              @click="tell(review.causes.next!.question.id, answer.id)"
              >{{ answer.label }}</Button
            >
          </div>
        </template>
      </template>
    </template>
  </section>
</template>

<style scoped>
h2 {
  font-size: 18px;
  margin: 10px 0 4px;
}
h2:first-child {
  margin-top: 0;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol > li {
  margin-bottom: 14px;
}
.row b:first-child {
  white-space: normal;
}
.for {
  color: var(--ink);
}
.against {
  color: var(--quiet);
}
p {
  margin: 4px 0 6px;
}
.tools :deep(button) {
  height: auto;
  min-height: 30px;
  white-space: normal;
  text-align: left;
}
</style>
