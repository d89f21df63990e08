<script setup lang="ts">
import { runsInLayers } from '@wick/plan/forecast/problem';
import { useDoubt, useSession } from '../../compute/use-desk.ts';
import { SAMPLE_RUNS } from '../../compute/doubt.ts';
import { needsSolving } from '@wick/plan/forecast/sample';
import { chanceWords, inputWords } from '@wick/plan/forecast/words';
import type { Spread } from '@wick/core/verdict/ensemble';
import Button from 'ant-design-vue/es/button';
import Progress from 'ant-design-vue/es/progress';
import { computed } from 'vue';
import ForecastSettings from './ForecastSettings.vue';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';

/** What is not known, and what many runs with it drawn at random come to. */
const job = useSession();
const shop = useShopStore();

const ensemble = useDoubt();
const summary = computed(() => ensemble.summary);
const isStale = computed(() => ensemble.isStale);
const minutes = (time: number) => (Number.isFinite(time) ? `${Math.round(time / 60)}` : 'gels');
const spreadWords = ({ early, middle, late }: Spread) =>
  `${minutes(early)} · ${minutes(middle)} · ${minutes(late)}`;
const fields = [
  ['permeability', 'Permeability, times or divided by'],
  ['viscosity', 'Viscosity, times or divided by'],
  ['gelTime', 'Gel time, times or divided by'],
  ['thickness', 'Thickness, times or divided by'],
] as const;
</script>

<template>
  <div class="list doubt">
    <div class="inputs">
      <ForecastSettings />
      <JobField v-for="[key, label] in fields" :key="key" :label="label" :path="`doubt.${key}`" />
      <JobField label="Temperature, plus or minus" path="doubt.temperature" />
      <JobField label="Chance that an edge races" path="doubt.raceChance" />
      <JobField label="Gap of a racing edge" path="doubt.raceGap" />
    </div>
    <div class="outcome">
      <div class="bar">
        <Button v-if="!ensemble.isRunning" type="primary" size="small" @click="ensemble.start"
          >Run it {{ SAMPLE_RUNS }} times</Button
        >
        <Button v-else size="small" @click="ensemble.cancel">Stop</Button>
        <Progress
          v-if="ensemble.isRunning"
          :percent="Math.round((100 * ensemble.samples.length) / SAMPLE_RUNS)"
          size="small"
          class="progress"
        />
        <span v-else class="quiet">{{
          needsSolving(job.laid)
            ? `each run is solved anew, coarsely: ${runsInLayers(job.laid) ? 'some minutes with layers' : 'about half a minute'}`
            : 'only the speed of the whole is in doubt: the range beside is as good'
        }}</span>
      </div>
      <p v-if="ensemble.message" class="ember" role="alert">{{ ensemble.message }}</p>
      <template v-if="summary">
        <p :class="{ quiet: isStale }" data-testid="ensemble">
          <b class="number">{{ chanceWords(summary) }}</b> fill ({{ summary.count }} runs<template
            v-if="isStale"
            >, before the last change</template
          >).
          <template v-if="summary.drivers[0]"
            >Its margin is moved most by {{ inputWords[summary.drivers[0].input] }}.</template
          >
        </p>
        <div class="row">
          <span>Last corner: early · middle · late, min</span
          ><span class="number">{{ spreadWords(summary.fill) }}</span>
        </div>
        <div v-for="(mark, i) in job.laid.marks.slice(0, summary.marks.length)" :key="mark.id" class="row">
          <span>{{ mark.name }}</span><span class="number">{{ spreadWords(summary.marks[i]!) }}</span>
        </div>
        <div
          v-for="worst in summary.worstPlaces.slice(0, 2)"
          :key="`${worst.place.x} ${worst.place.y}`"
          class="row"
        >
          <span
            >Last or dry near {{ shop.show(worst.place.x, 'length') }},
            {{ shop.show(worst.place.y, 'length') }}</span
          >
          <span class="number">{{ Math.round(100 * worst.share) }} %</span>
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.doubt {
  display: grid;
  grid-template-columns: 1.2fr 1fr;
  gap: 20px;
  padding-top: 4px;
}
.inputs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
  align-content: start;
}
.inputs :deep(input) {
  padding: 1px 7px;
}
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
}
.progress {
  flex: 1;
  margin: 0;
}
p {
  margin: 6px 0;
}
</style>
