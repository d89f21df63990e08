<script setup lang="ts">
import { stopSchools, type StopSchool } from '@wick/contract/run/infusion-bodies';
import { schoolWords } from '@wick/plan/infusion/names';
import { USUAL_LEFT, type Ending } from '@wick/plan/infusion/stop';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useScheduler } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import FieldBands from '../../board/FieldBands.vue';
import FieldScale from '../../board/FieldScale.vue';
import { fieldBands, fieldViews } from '../../board/fields.ts';
import { useLive } from './live.ts';
import PlanFigure from '../common/PlanFigure.vue';
import { useQuestion } from '../common/use-question.ts';

/** When to shut, by either school, and what the laminate comes to until gel. */
const run = useRun();
const live = useLive();
const shop = useShopStore();
const scheduler = useScheduler();
const { isAsking, message, ask } = useQuestion();
const workOut = () =>
  ask(async (number) => {
    const asked = live.asked();
    if (!asked) return;
    const key = `endings ${run.run?.id} ${number} ${asked.answer.now}`;
    live.endings = await scheduler.want(key, { kind: 'endings', asked }, { lane: 'board' });
  });
const chosen = computed(() => live.infusion?.school ?? null);
const shown = computed(
  (): Ending | null => live.endings.find(({ school }) => school === chosen.value) ?? live.endings[0] ?? null,
);
const field = computed(() => {
  const { mesh, final } = shown.value ?? {};
  const view = fieldViews.find(({ id }) => id === 'fraction')!;
  return mesh && final ? fieldBands({ mesh }, final.fraction, view, shop.unit('fraction')) : null;
});
const minute = (seconds: number) => Math.round(seconds / 60);
const fraction = (value: number) => shop.show(value, 'fraction');
/** What it comes to, once that has been worked out. */
function words(school: StopSchool): string[] {
  const ending = live.endings.find((one) => one.school === school);
  if (!ending) return [];
  const { shutAt, left, wet, fraction: found } = ending;
  const practice = `${shop.show(USUAL_LEFT[0], 'length')} to ${shop.show(USUAL_LEFT[1], 'length')} is the practice`;
  return [
    shutAt === null
      ? 'Shut now, what lies behind would not fill the rest.'
      : `Shut at ${minute(shutAt)} min, with the front ${shop.show(left, 'length')} from the end (${practice}).`,
    ...(wet < 0.995 ? [`${Math.floor(100 * wet)} % wet in the end.`] : []),
    ...(found
      ? [
          `Fibre ${fraction(found.middle)} in the middle of it; the loosest tenth below ${fraction(found.loose)} stays soft longest.`,
        ]
      : []),
  ];
}
</script>

<template>
  <section class="stop" aria-label="Stop">
    <div class="top">
      <h2>Stop</h2>
      <Button :loading="isAsking" :disabled="!live.answer || live.infusion?.openedAt == null" @click="workOut"
        >Work out when to shut</Button
      >
    </div>
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
    <div class="schools">
      <div v-for="school in stopSchools" :key="school" :class="['school', { chosen: chosen === school }]">
        <h3>{{ schoolWords[school] }}</h3>
        <p v-for="sentence in words(school)" :key="sentence">{{ sentence }}</p>
        <p v-if="school === 'keepVacuum'" class="quiet">
          A pump that stops lets air, and resin from the catch pot, back in: a check valve and a watch by
          name.
        </p>
        <p v-else class="quiet">The brake has to hold; what is there stays there.</p>
        <Button :disabled="!run.run || chosen === school" @click="run.say({ kind: 'school', is: school })">{{
          chosen === school ? 'So it is done' : 'Do it so'
        }}</Button>
      </div>
    </div>
    <template v-if="field && live.job">
      <PlanFigure :job="live.job" label="Fibre volume at gel">
        <template #under="{ view }"><FieldBands :view="view" :bands="field" /></template>
      </PlanFigure>
      <FieldScale :bands="field" quantity="fraction" />
    </template>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  gap: 16px;
  align-items: center;
  margin-top: 8px;
}
h2 {
  font-size: 20px;
  margin: 0;
}
h3 {
  font-size: 17px;
  margin: 0;
}
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 12px;
}
.school {
  border-left: 4px solid var(--edge);
  padding: 4px 12px;
}
.school.chosen {
  border-left-color: var(--moss);
}
p {
  margin: 2px 0 6px;
}
</style>
