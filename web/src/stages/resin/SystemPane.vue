<script setup lang="ts">
import { withResinSystem } from '@wick/plan/job/edits';
import { settle } from '@wick/plan/settle';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { laterComponent } from '../../ui/later.ts';
import JobField from '../common/JobField.vue';
import { useBench } from './bench.ts';
import RatioPanel from './RatioPanel.vue';
import ResinData from './ResinData.vue';
import SystemClock from './SystemClock.vue';

/** Which resin and hardener: all of the library on one clock, at this shop's temperatures. */
const ResinCharts = laterComponent(() => import('./ResinCharts.vue'));
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const library = useLibraryStore();
const forecast = useForecast();
const temperature = computed(() => settle(job.laid, shop.shop)['resin.temperature'].value);
const choices = computed(() => {
  const own = bench.system ? [bench.system] : [];
  return [...own, ...library.ofKind('resin').filter((item) => item.id !== bench.system?.id)];
});
const refuseTemperature = (value: number) =>
  value > 263 && value < 373 ? null : 'Resin is worked between -10 and 100 °C.';
function choose(id: string) {
  const chosen = choices.value.find((item) => item.id === id);
  if (chosen) job.apply(withResinSystem(chosen), chosen.name);
}
</script>

<template>
  <div class="fields">
    <label class="system">
      <span class="quiet">Resin system</span>
      <Choice
        :value="bench.system?.id"
        placeholder="Choose a resin from the library"
        aria-label="Resin system"
        :options="choices.map((item) => ({ value: item.id, label: item.name }))"
        @change="choose(String($event))"
      />
    </label>
    <JobField label="Temperature" path="resin.temperature" :refuse="refuseTemperature" />
    <JobField label="Mould, if different" path="resin.mouldTemperature" :refuse="refuseTemperature" />
    <JobField label="Shop warms or cools by" path="resin.drift" />
    <JobField label="Feed hose" path="resin.hoseLength" />
  </div>
  <p v-if="forecast.message && !forecast.clock" class="ember" role="alert">{{ forecast.message }}</p>
  <SystemClock @choose="choose" />
  <RatioPanel v-if="bench.system" :resin="bench.system" />
  <ResinCharts v-if="bench.system && forecast.clock" :resin="bench.system" />
  <ResinData v-if="bench.system" :resin="bench.system" :temperature="temperature" />
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1.7fr repeat(4, 1fr);
  gap: 12px;
  margin: 10px 0;
}
.system {
  display: flex;
  flex-direction: column;
}
.system .quiet {
  font-size: 12px;
}
</style>
