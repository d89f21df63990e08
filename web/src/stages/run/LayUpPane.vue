<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { plyCutsOf } from '@wick/plan/laminate/ply-book';
import { heldBy } from '@wick/plan/card/progress';
import { isWetted } from '@wick/plan/stack/lies';
import { orNull } from '@wick/core/model-error';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { pathOf, type Viewport } from '../../board/viewport.ts';
import { useCard } from '../../compute/use-desk.ts';
import HoldPanel from '../common/HoldPanel.vue';
import CornerTicks from './CornerTicks.vue';
import PictureButton from './PictureButton.vue';
import PlanFigure from '../common/PlanFigure.vue';
import { dayClock } from '../../ui/day-clock.ts';
import { useWork } from './use-work.ts';

/** One ply at a time: where it lies, which way it runs, and its corners. */
const work = useCard();
const { isBegun, finish, finishAgain, takeBack, openOf, isSettled } = useWork();
const steps = computed(() =>
  work.card!.steps.filter(({ each }) => ['ply', 'core', 'mouldFace', 'bagFace'].includes(each)),
);
const chosen = ref<string | null>(null);
const at = computed(() => {
  const wanted = steps.value.findIndex(({ id }) => id === chosen.value);
  const next = steps.value.findIndex(({ id }) => !isSettled(id));
  return wanted >= 0 ? wanted : next >= 0 ? next : steps.value.length - 1;
});
const step = computed(() => steps.value[at.value] ?? null);
const hold = computed(() => work.progress && heldBy(work.progress, 'layUp'));
const cuts = computed(() => (work.laid && orNull(() => plyCutsOf(work.laid!))) ?? []);
const cut = computed(() => cuts.value.find(({ plyId }) => plyId === step.value?.aboutId) ?? null);
const done = computed(() => (step.value ? (work.progress?.steps.get(step.value.id)?.done ?? null) : null));
const left = computed(() => (step.value ? openOf(step.value).length : 0));
const angle = computed(() => (cut.value ? Math.round((cut.value.angle * 180) / Math.PI) : null));
/** Along the fibre, over the middle of the figure. */
const arrow = computed(() => {
  const [half, rad] = [100, cut.value?.angle ?? 0];
  const [dx, dy] = [half * Math.cos(rad), -half * Math.sin(rad)];
  return { x1: 320 - dx, y1: 125 - dy, x2: 320 + dx, y2: 125 + dy };
});
const regionPath = (view: Viewport) =>
  cut.value?.region
    .flatMap(({ outline, holes }) => [outline, ...holes])
    .map((ring) => pathOf(view, polygonOf(ring), true))
    .join('') ?? '';
const rest = computed(() =>
  work.laid && isWetted(work.laid)
    ? 'Wet it goes on without a break: from the first mix its clock runs.'
    : 'Dry it may rest for days: cover it, and look it over for dust and hairs before you go on.',
);
const bond = computed(
  () =>
    work.progress?.timers.find(
      ({ closesAt, endsWith }) => closesAt !== null && endsWith?.startsWith('ply'),
    ) ?? null,
);
async function laid() {
  if (!step.value) return;
  await finish(step.value);
  chosen.value = null;
}
</script>

<template>
  <p v-if="!step" class="quiet">No plies yet: they are laid out under Laminate.</p>
  <div v-else class="lay">
    <p class="title" data-testid="ply">
      <b class="number">{{ step.each === 'ply' ? cut?.order : '' }}</b>
      <span
        >{{ step.each === 'ply' ? step.what : step.title }} <small>{{ step.detail }}</small></span
      >
      <span v-if="angle !== null" class="angle number">{{ angle }}°</span>
    </p>
    <PlanFigure v-if="work.laid" :job="work.laid" :label="`Where ${step.what} lies`">
      <template #under="{ view }"><path :d="regionPath(view)" class="ply" /></template>
      <template #default>
        <line v-if="angle !== null" v-bind="arrow" class="fibre" />
      </template>
    </PlanFigure>
    <CornerTicks v-if="step.ticks.length > 0" :step="step" />
    <p v-if="step.each !== 'ply'" class="why">{{ step.why }}</p>
    <HoldPanel v-if="hold" :key="hold.id" :hold="hold" @again="finishAgain" />
    <div class="buttons">
      <Button :disabled="at === 0" @click="chosen = steps[at - 1]!.id">Before</Button>
      <Button
        v-if="!hold && !done"
        type="primary"
        class="done"
        :disabled="!isBegun || left > 0"
        @click="laid"
        >{{
          left > 0
            ? `${left} ${left === 1 ? 'corner' : 'corners'} to press`
            : step.each === 'ply'
              ? 'Laid'
              : 'Done'
        }}</Button
      >
      <span v-if="done" class="moss">
        {{ dayClock(done.at) }} {{ done.by }}
        <Button type="text" @click="takeBack(step.id)">Take back</Button>
      </span>
      <Button :disabled="at === steps.length - 1" @click="chosen = steps[at + 1]!.id">Next</Button>
      <PictureButton :step-id="step.id" :caption="step.what || step.title" :is-asked="step.photo" />
    </div>
    <p class="quiet">
      {{ rest }}
      <template v-if="bond">{{ bond.word }}: its window closes at {{ dayClock(bond.closesAt!) }}.</template>
    </p>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  gap: 18px;
  align-items: baseline;
  font: 600 30px/1 var(--display);
  margin: 4px 0;
}
.title .number:first-child {
  font-size: 60px;
  color: var(--resin-ink);
}
.angle {
  margin-left: auto;
  font-size: 60px;
}
.title small {
  display: block;
  font: 500 18px var(--display);
}
.ply {
  fill: var(--resin);
  fill-opacity: 0.28;
  fill-rule: evenodd;
  stroke: var(--resin);
  stroke-width: 2;
}
.fibre {
  stroke: var(--ink);
  stroke-width: 5;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
}
.done {
  min-width: 180px;
  min-height: 56px !important;
  font-size: 20px !important;
}
</style>
