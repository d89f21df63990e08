<script setup lang="ts">
import { heldBy } from '@wick/plan/card/progress';
import { phaseNames, stepTitle, type CardStep, type Wait } from '@wick/plan/card/step';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useCard, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import HoldPanel from '../common/HoldPanel.vue';
import LeaveOutForm from './LeaveOutForm.vue';
import CornerTicks from './CornerTicks.vue';
import PictureButton from './PictureButton.vue';
import TouchButtons from './TouchButtons.vue';
import { dayClock } from '../../ui/day-clock.ts';
import { useWork } from './use-work.ts';

/** One step across the screen: what, why, with what, what can hurt; done by one tap. */
const props = defineProps<{ step: CardStep | null }>();
const job = useSession();
const work = useCard();
const shop = useShopStore();
const { finish, finishAgain, leaveOut, openOf } = useWork();
const hold = computed(() => props.step && work.progress && heldBy(work.progress, props.step.phase));
/** It would come before its time: said, and left to whoever does it. */
const early = computed(
  () =>
    work.progress?.timers.find(({ endsWith, state }) => endsWith === props.step?.id && state === 'waiting') ??
    null,
);
const waitWords = ({ word, opens, closes, temperature }: Wait): string => {
  const time = (value: number) => shop.show(value, 'duration');
  const at = temperature === null ? '' : `, at ${shop.show(temperature, 'temperature')}`;
  const span =
    closes === null
      ? time(opens)
      : opens > 0
        ? `${time(opens)} to ${time(closes)}`
        : `within ${time(closes)}`;
  return `${word}: ${span}${at}`;
};
/** What it waits for before it can be done; null for nothing. */
const lacking = computed(() => {
  const left = props.step ? openOf(props.step).length : 0;
  if (left > 0) return `${left} ${left === 1 ? 'corner' : 'corners'} to press`;
  const touch = work.progress?.holds.find(({ id }) => id === 'touch-gelCoat');
  return props.step?.id === 'gel-touch' && touch && !touch.isOpen ? 'Not ready yet' : null;
});
/** Where a step is done by a screen of its own. */
const place = computed(() => {
  const own: Partial<Record<string, { to: string; label: string }>> = {
    'gel-comb': { to: '?pane=gel', label: 'Comb readings' },
    'gel-touch': { to: '?pane=gel', label: 'Touch' },
    ply: { to: '?pane=lay', label: 'Lay-up' },
    'drop-test': { to: 'vacuum', label: 'Drop test' },
    mix: { to: 'mix', label: 'Mix by the sheet' },
  };
  const found = props.step && own[props.step.id.split(':')[0]!];
  if (!found) return null;
  return {
    ...found,
    to: found.to.startsWith('?') ? `/jobs/${job.id}/run${found.to}` : `/jobs/${job.id}/${found.to}`,
  };
});
/** Steps that are answered by the finger. */
const touches = computed(
  () =>
    (({ 'gel-touch': 'gelCoat', 'barrier-look': 'barrier', 'wet-out': 'laminate' }) as const)[
      props.step?.id ?? ''
    ] ?? null,
);
const isLeaving = ref(false);
async function skip(why: string) {
  await leaveOut(props.step!, why);
  isLeaving.value = false;
}
</script>

<template>
  <section v-if="!step" class="next" data-testid="next-step">
    <p class="title">Everything on the card is done.</p>
  </section>
  <section v-else class="next" data-testid="next-step">
    <p class="phase">{{ phaseNames[step.phase] }}</p>
    <p class="title">{{ stepTitle(step) }}</p>
    <p v-if="step.detail" class="detail">{{ step.detail }}</p>
    <p class="why">{{ step.why }}</p>
    <p v-if="step.takes.length > 0" class="takes">
      <span class="quiet">from the kit</span> {{ step.takes.join(', ') }}
      <template v-if="step.who"><span class="quiet"> · who</span> {{ step.who }}</template>
    </p>
    <p v-for="wait in step.waits" :key="wait.word" class="takes">
      <span class="quiet">starts a clock</span> {{ waitWords(wait) }}
    </p>
    <p v-if="step.caution" class="ember">{{ step.caution }}</p>
    <TouchButtons v-if="touches" :where="touches" />
    <CornerTicks v-if="step.ticks.length > 0" :step="step" />
    <HoldPanel v-if="hold" :key="hold.id" :hold="hold" @again="finishAgain" />
    <template v-else>
      <p v-if="early" class="early">
        Not before {{ dayClock(early.opensAt) }}: {{ early.word.toLowerCase() }}.
      </p>
      <div class="buttons">
        <Button type="primary" class="done" :disabled="lacking !== null" @click="finish(step)">{{
          lacking ?? 'Done'
        }}</Button>
        <RouterLink v-if="place" :to="place.to" class="go">{{ place.label }}</RouterLink>
        <PictureButton :step-id="step.id" :caption="stepTitle(step)" :is-asked="step.photo" />
        <Button @click="isLeaving = !isLeaving">Leave it out …</Button>
      </div>
      <LeaveOutForm v-if="isLeaving" label="Why it is left out" button="Leave it out" @leave="skip" />
    </template>
  </section>
</template>

<style scoped>
.next {
  border-left: 6px solid var(--resin);
  background: var(--sheet);
  padding: 12px 18px;
}
p {
  margin: 0 0 6px;
}
.phase {
  font: 600 14px var(--display);
  color: var(--resin-ink);
}
.title {
  font: 600 32px/1.1 var(--display);
}
.detail {
  font: 500 20px/1.2 var(--display);
}
.why,
.takes {
  max-width: 760px;
}
.early {
  color: var(--resin-ink);
  font-weight: 600;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 10px;
  align-items: center;
}
.done {
  min-width: 180px;
  min-height: 56px !important;
  font-size: 20px !important;
}
.go {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  padding: 0 8px;
}
</style>
