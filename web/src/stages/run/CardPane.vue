<script setup lang="ts">
import type { Phase } from '@wick/contract/steps';
import { applicationWords, releaseFaults } from '@wick/plan/card/release';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useCard, useSession } from '../../compute/use-desk.ts';
import LeaveOutForm from './LeaveOutForm.vue';
import NextStep from './NextStep.vue';
import PhaseStrip from './PhaseStrip.vue';
import StepRow from './StepRow.vue';
import { useWork } from './use-work.ts';

/** The card: what is next, large; every phase; the steps of the one that is looked at. */
const job = useSession();
const work = useCard();
const { isBegun, isSettled, leaveOutAll } = useWork();
const card = computed(() => work.card!);
const progress = computed(() => work.progress!);
const chosen = ref<Phase | null>(null);
const shown = computed(
  () =>
    card.value.phases.find(({ phase }) => phase === (chosen.value ?? progress.value.next?.phase)) ??
    card.value.phases[0] ??
    null,
);
const open = computed(() => shown.value?.steps.filter(({ id }) => !isSettled(id)) ?? []);
const notes = computed(() => {
  if (shown.value?.phase !== 'release' || !work.basis) return [];
  const { mould } = work.basis;
  const application = applicationWords(card.value.recipe, mould);
  return [...releaseFaults(card.value.recipe, mould), ...(application ? [application] : [])];
});

const isLeaving = ref(false);
async function leaveOut(why: string) {
  await leaveOutAll(open.value, why);
  isLeaving.value = false;
}
</script>

<template>
  <div class="card">
    <p v-if="!isBegun" class="quiet">No part is being made yet: this is its card as the job stands now.</p>
    <NextStep v-else :step="progress.next" />
    <PhaseStrip :phases="card.phases" :shown="shown?.phase ?? null" @show="chosen = $event" />
    <section v-if="shown" :aria-label="shown.name">
      <div class="top">
        <h2>{{ shown.name }}</h2>
        <Button v-if="isBegun && open.length > 1" type="text" @click="isLeaving = !isLeaving"
          >Leave out the {{ open.length }} that are open …</Button
        >
        <RouterLink :to="`/jobs/${job.id}/traveller`" class="print">Print the card</RouterLink>
      </div>
      <LeaveOutForm
        v-if="isLeaving"
        label="Why they are left out"
        button="Leave them out"
        @leave="leaveOut"
      />
      <p v-for="note in notes" :key="note" class="note">{{ note }}</p>
      <ol>
        <StepRow v-for="step in shown.steps" :key="step.id" :step="step" />
      </ol>
    </section>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  gap: 16px;
  align-items: center;
  min-height: 44px;
}
h2 {
  font-size: 20px;
  flex: 1;
}
.print {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.note {
  margin: 0 0 6px;
  color: var(--resin-ink);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
