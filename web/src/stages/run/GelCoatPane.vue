<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import { partArea } from '@wick/plan/part/figures';
import { combReadings, combsWanted, combWords, filmAfter } from '@wick/plan/card/surface';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useCard, useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import PlanFigure from '../common/PlanFigure.vue';
import TouchButtons from './TouchButtons.vue';
import { useWork } from './use-work.ts';

/** Wet film read with the comb, place by place, and what the finger says. */
const run = useRun();
const work = useCard();
const shop = useShopStore();
const { isBegun, isSettled } = useWork();
const gelCoat = computed(() => work.basis!.job.prep.gelCoat!);
const passes = computed(() => work.card!.steps.filter(({ each }) => each === 'gelPass'));
/** The pass that is on, or the last of all. */
const pass = ref<number | null>(null);
const ownPass = computed(
  () => pass.value ?? Math.max(1, passes.value.filter(({ id }) => isSettled(id)).length),
);
const range = computed(() => filmAfter(gelCoat.value, ownPass.value));
const all = computed(() => combReadings(run.state, gelCoat.value));
const readings = computed(() => all.value.filter((reading) => reading.pass === ownPass.value));
const wanted = computed(() => combsWanted(partArea(work.laid!.part)));
const place = ref<Point | null>(null);
const outside = computed(() => readings.value.filter(({ state }) => state !== 'within'));
const verdict = computed(() => {
  const { length } = readings.value;
  if (length === 0) return { words: `Read it at ${wanted.value} places: tap the plan.`, tone: 'quiet' };
  if (outside.value.length > 0)
    return {
      words: `${outside.value.length} of ${length} outside: ${combWords[outside.value[0]!.state]}`,
      tone: 'ember',
    };
  return length < wanted.value
    ? { words: `${length} of ${wanted.value} read, all within.`, tone: 'quiet' }
    : { words: `All ${length} within.`, tone: 'moss' };
});
async function read(film: number | null) {
  if (film === null || !place.value) return;
  const { x, y } = place.value;
  place.value = null;
  await run.say({ kind: 'comb', pass: ownPass.value, x, y, film });
}
</script>

<template>
  <div class="gel">
    <div class="top">
      <label>
        <span class="quiet">After pass</span>
        <Choice
          :value="ownPass"
          :options="passes.map((_, n) => ({ value: n + 1, label: `${n + 1} of ${passes.length}` }))"
          aria-label="After pass"
          @change="pass = Number($event)"
        />
      </label>
      <p class="range">
        <span class="quiet">wet film wanted</span>
        <b class="number"
          >{{ shop.show(range.low, 'thickness') }} to {{ shop.show(range.high, 'thickness') }}</b
        >
      </p>
      <p :class="['verdict', verdict.tone]" data-testid="comb-verdict">{{ verdict.words }}</p>
    </div>
    <PlanFigure
      v-if="work.laid"
      :job="work.laid"
      label="Comb readings on the plan"
      :is-tappable="isBegun"
      @tap="place = $event"
    >
      <template #default="{ at }">
        <g v-for="reading in readings" :key="reading.entryId" :class="['spot', reading.state]">
          <circle :cx="at(reading).x" :cy="at(reading).y" r="7" />
          <text :x="at(reading).x + 11" :y="at(reading).y + 5">{{
            shop.show(reading.film, 'thickness')
          }}</text>
        </g>
        <circle v-if="place" :cx="at(place).x" :cy="at(place).y" r="10" class="here" />
      </template>
    </PlanFigure>
    <div class="read">
      <template v-if="place">
        <QuantityInput
          :model-value="null"
          label="Last tooth that is wet"
          quantity="thickness"
          optional
          :limits="{ atLeast: 0, below: 0.02 }"
          @update:model-value="read"
        />
        <Button @click="place = null">Not here</Button>
      </template>
      <p v-else class="quiet">Tap the plan where the comb was read.</p>
    </div>
    <h3>Touched with a clean glove, at its thickest place</h3>
    <TouchButtons where="gelCoat" :disabled="!isBegun" />
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: end;
}
.top p {
  margin: 0;
}
.top label span,
.range span {
  display: block;
  font-size: 13px;
}
.range .number {
  font-size: 22px;
}
.verdict {
  font-weight: 600;
  flex: 1 1 220px;
}
.spot circle {
  fill: var(--moss);
}
.spot text {
  font: 600 15px var(--display);
  fill: var(--ink);
}
.spot.thin circle,
.spot.thick circle {
  fill: var(--ember);
}
.here {
  fill: none;
  stroke: var(--resin);
  stroke-width: 3;
}
.read {
  display: flex;
  gap: 12px;
  align-items: end;
  /* As high as the field: what lies below does not move from under the finger. */
  min-height: 64px;
}
.read p {
  margin: 0;
}
</style>
