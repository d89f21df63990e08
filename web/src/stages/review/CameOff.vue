<script setup lang="ts">
import { infusionOf } from '@wick/plan/infusion/infusion';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useCard, useRun, useScheduler } from '../../compute/use-desk.ts';
import { useQuestion } from '../common/use-question.ts';
import { useReview } from './review.ts';

/** The part of a rehearsal has nobody who could look at it: what would be found on it is worked out, and written down as if. */
const run = useRun();
const work = useCard();
const review = useReview();
const scheduler = useScheduler();
const { isAsking, message, ask } = useQuestion();
/** Nothing may have been found, and nobody weighed it. */
const lookedAt = ref<string | null>(null);
const looks = ['finding', 'weighed', 'gauged'];
const isLookedAt = computed(
  () => lookedAt.value === run.run?.id || run.state.entries.some(({ body }) => looks.includes(body.kind)),
);
const isOpened = computed(() => review.job !== null && infusionOf(run.state, review.job).openedAt !== null);

const look = () =>
  ask(async (number) => {
    if (!run.run || !review.job) return;
    const request = {
      ...{ job: review.job, shop: review.shop, mould: work.basis?.mould ?? null },
      ...{ run: run.run, entries: run.entries },
    };
    const key = `came off ${run.run.id} ${number}`;
    const found = await scheduler.want(key, { kind: 'cameOff', request }, { lane: 'board' });
    for (const body of found ?? []) await run.say(body);
    if (!found?.length) await run.say({ kind: 'note', text: 'Looked over: nothing was found.' });
    lookedAt.value = run.run.id;
  });
</script>

<template>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
  <p v-if="!isLookedAt" class="tools">
    <Button type="primary" :loading="isAsking" :disabled="!isOpened" @click="look"
      >Take it off the mould and look</Button
    >
    <span class="quiet">{{
      isOpened
        ? 'Works out what somebody would find and weigh on this rehearsal’s part.'
        : 'No feed was opened: there is no part.'
    }}</span>
  </p>
</template>
