<script setup lang="ts">
import type { Debrief } from '@wick/plan/infusion/debrief';
import Button from 'ant-design-vue/es/button';
import { computed, shallowRef } from 'vue';
import { useRun, useScheduler } from '../../compute/use-desk.ts';
import { useLive } from './live.ts';
import { useQuestion } from '../common/use-question.ts';

/** The trainer: something is drawn before the feed opens, and said only afterwards, with what was missed. */
const run = useRun();
const live = useLive();
const scheduler = useScheduler();
const debrief = shallowRef<Debrief | null>(null);
const { isAsking, message, ask } = useQuestion();
const isOpen = computed(() => live.infusion?.openedAt != null);
const isDrawn = computed(() =>
  run.state.entries.some(({ body }) => body.kind === 'trouble' && body.what === 'day'),
);
const isOver = computed(() => live.part.seen?.hasGelled || live.infusion?.allWetAt != null);
const draw = () =>
  void run.say({ kind: 'trouble', what: 'day', placeId: null, amount: Math.floor(Math.random() * 1e6) });
const race = () => void run.say({ kind: 'trouble', what: 'race', placeId: null, amount: 0 });
const pump = () => void run.say({ kind: 'trouble', what: 'pumpDies', placeId: null, amount: 0 });

const lookBack = () =>
  ask(async () => {
    const { seen } = live.part;
    if (!live.job || !seen?.truth || !run.run) return;
    const request = {
      ...{ job: live.job, shop: live.shop, seed: run.run.seed, faults: seen.faults, truth: seen.truth },
      ...{ entries: run.state.entries, readings: live.readings, shapes: live.shapes },
    };
    const key = `debrief ${run.run.id} ${run.entries.length}`;
    debrief.value = await scheduler.want(key, { kind: 'debrief', request }, { lane: 'board' });
  });
const minute = (seconds: number) => `${Math.round(seconds / 60)} min`;
const endWords = ({
  isSaved,
  filledAt,
  filledShare,
}: {
  isSaved: boolean;
  filledAt: number | null;
  filledShare: number;
}) =>
  isSaved && filledAt !== null
    ? `full at ${minute(filledAt)}`
    : `lost with ${Math.floor(100 * filledShare)} % full`;
</script>

<template>
  <section class="rehearsal" aria-label="Rehearsal">
    <h2>Rehearsal</h2>
    <div class="row">
      <Button :disabled="isOpen || isDrawn" @click="draw">Draw something and keep it secret</Button>
      <Button :disabled="isOpen" @click="race">Let it race along an edge</Button>
      <Button @click="pump">Let the pump die</Button>
      <Button :loading="isAsking" :disabled="!isOver" @click="lookBack">What did I miss?</Button>
    </div>
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
    <div v-if="debrief" data-testid="debrief">
      <p>
        <b>{{ endWords(debrief) }}</b><template v-if="debrief.drewAirAt !== null"
          >, air in the hose at {{ minute(debrief.drewAirAt) }}</template
        >; gel at {{ minute(debrief.gelTime) }}.
      </p>
      <ul>
        <li v-for="fault in debrief.faults" :key="fault.words">
          <b>{{ fault.words }}.</b>
          {{
            fault.seenFrom === null
              ? `By ${fault.by} it could not be seen with what was read.`
              : `To be seen from ${minute(fault.seenFrom)} on, by ${fault.by}.`
          }}
          {{
            fault.answeredAt === null
              ? 'Nobody did anything about it.'
              : `Answered at ${minute(fault.answeredAt)}.`
          }}
        </li>
        <li v-if="debrief.faults.length === 0">Nothing was drawn beside the scatter that every part has.</li>
      </ul>
      <p>
        By the plan alone it is {{ endWords({ ...debrief.planned, filledAt: debrief.planned.filledAt }) }}; by
        the advice {{ endWords(debrief.advised)
        }}<template v-if="debrief.advised.decisions.length > 0"
          >:
          {{
            debrief.advised.decisions.map(({ title, at }) => `${title} at ${minute(at)}`).join(', ')
          }}</template
        >.
      </p>
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 20px;
  margin: 8px 0 4px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  margin: 4px 0;
}
</style>
