<script setup lang="ts">
import { useForecast, useProbes } from '../../compute/use-desk.ts';
import type { ProbeHistory } from '../../compute/probes.ts';
import { formatClock, toUnit } from '@wick/core/units/format';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { laterComponent } from '../../ui/later.ts';

/** Pinned places: when the front comes, how old the resin is then, and the pressure under the bag over time. */
/** Charts are fetched where there is one to draw. */
const VueApexCharts = laterComponent(() => import('vue3-apexcharts'));
const props = defineProps<{ minute: number | null }>();
const probes = useProbes();
const shop = useShopStore();
const forecast = useForecast();
const COLOURS = ['#C77700', '#1F6F78', '#3F6B4F', '#B3261E', '#5C4A8A', '#7A4600', '#1E2A2F', '#8B8474'];

const unit = computed(() => shop.unit('absolutePressure'));
const series = computed(() =>
  probes.histories.map(({ probe, pressure }) => ({
    name: probe.name,
    data: pressure.map(({ time, value }): [number, number] => [
      time / 60,
      toUnit(value, 'absolutePressure', unit.value),
    ]),
  })),
);
const options = computed(() => ({
  chart: {
    toolbar: { show: false },
    animations: { enabled: false },
    zoom: { enabled: false },
    fontFamily: 'var(--text)',
  },
  stroke: { width: 2 },
  colors: COLOURS,
  legend: { show: false },
  tooltip: { x: { formatter: (value: number) => formatClock(value * 60) } },
  xaxis: {
    type: 'numeric' as const,
    tickAmount: 8,
    labels: { formatter: (value: string) => `${Math.round(Number(value))}` },
  },
  yaxis: {
    tickAmount: 4,
    labels: { formatter: (value: number) => `${Math.round(value)}` },
  },
  annotations: {
    xaxis: [
      ...probes.histories
        .filter(({ arrival }) => Number.isFinite(arrival))
        .map(({ arrival }, i) => ({ x: arrival / 60, borderColor: COLOURS[i], strokeDashArray: 3 })),
      ...(props.minute === null ? [] : [{ x: props.minute / 60, borderColor: '#1E2A2F' }]),
    ],
  },
}));
function wetWords({ arrival, isOnPart }: ProbeHistory): string {
  if (!isOnPart) return 'off the part';
  if (Number.isNaN(arrival)) return 'stays dry';
  return Number.isFinite(arrival) ? `wet ${formatClock(arrival)}` : 'not before gel';
}
</script>

<template>
  <div class="list probes" data-testid="probes">
    <p v-if="probes.probes.length === 0" class="quiet">
      Choose Probe (P) and click on the plan: the place is pinned, and its pressure and the minute it gets wet
      stand here.
    </p>
    <template v-else>
      <div>
        <div v-for="(history, i) in probes.histories" :key="history.probe.id" class="row">
          <span
            ><b class="number" :style="{ color: COLOURS[i] }">{{ history.probe.name }}</b>
            {{ shop.show(history.probe.x, 'length') }}, {{ shop.show(history.probe.y, 'length') }}</span
          >
          <span class="number"
            >{{ wetWords(history)
            }}<template v-if="history.age !== null">
              · {{ Math.round(100 * history.age) }} % of life</template
            >
            <Button
              size="small"
              type="text"
              :aria-label="`Take ${history.probe.name} out`"
              @click="probes.unpin(history.probe.id)"
              >×</Button
            ></span
          >
        </div>
      </div>
      <figure v-if="forecast.flow">
        <figcaption class="quiet">
          Pressure under the bag, {{ unit }}, against minutes from first mix
        </figcaption>
        <VueApexCharts type="line" height="145" :options="options" :series="series" />
      </figure>
    </template>
  </div>
</template>

<style scoped>
.probes {
  display: grid;
  grid-template-columns: 330px 1fr;
  gap: 20px;
}
figure {
  margin: 0;
}
figcaption {
  font-size: 12px;
}
p {
  grid-column: 1 / -1;
  padding-top: 8px;
}
</style>
