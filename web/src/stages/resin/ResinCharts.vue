<script setup lang="ts">
import { useForecast } from '../../compute/use-desk.ts';
import { type ResinSystem } from '@wick/core/resin/resin-system';
import { gelFit, gelTime } from '@wick/core/resin/gel-time';
import { toUnit } from '@wick/core/units/format';
import { computed } from 'vue';
import VueApexCharts from 'vue3-apexcharts';
import { useShopStore } from '../../data/shop-store.ts';
import { niceStep } from '../../board/viewport.ts';
import { colours } from '../../ui/theme.ts';

/** Viscosity from first mix to gel at the chosen temperature, and gel time against temperature with the entered points. */
const props = defineProps<{ resin: ResinSystem }>();
const shop = useShopStore();
const forecast = useForecast();

const round = (value: number) => Number(value.toPrecision(4));
const viscosityUnit = computed(() => shop.unit('viscosity'));
const temperatureUnit = computed(() => shop.unit('temperature'));
const viscosity = computed(() => {
  const clock = forecast.clock!;
  return Array.from({ length: 61 }, (_, i) => {
    const time = (clock.gelTime * i) / 60;
    return {
      x: round(time / 60),
      y: round(toUnit(clock.viscosityAt(time), 'viscosity', viscosityUnit.value)),
    };
  });
});
const gelCurve = computed(() => {
  const known = props.resin.gelTable?.temperature ?? props.resin.gelPoints.map((point) => point.temperature);
  const spread = props.resin.gelTable ? 0 : 6;
  const usual = forecast.run!.temperature;
  const [from, to] =
    known.length > 0 ? [Math.min(...known) - spread, Math.max(...known) + spread] : [usual - 10, usual + 20];
  return Array.from({ length: 41 }, (_, i) => {
    const temperature = from + ((to - from) * i) / 40;
    return {
      x: round(toUnit(temperature, 'temperature', temperatureUnit.value)),
      y: round(gelTime(props.resin, temperature) / 60),
    };
  });
});
/** Entered points as a thin film has them, which is what the curve is of. */
const gelPoints = computed(() => {
  const { gelPoints: points, gelTable, kinetics } = props.resin;
  if (points.length === 0 || gelTable || kinetics) return [];
  const { at, residuals } = gelFit(props.resin);
  return points.map(({ temperature }, i) => ({
    x: round(toUnit(temperature, 'temperature', temperatureUnit.value)),
    y: round((at(temperature) * (1 + residuals[i]!)) / 60),
  }));
});

const line = (x: number, label: string, colour: string) => ({
  x,
  borderColor: colour,
  strokeDashArray: 0,
  label: {
    text: label,
    orientation: 'horizontal',
    borderColor: 'transparent',
    style: { background: colours.sheet, color: colour, fontSize: '12px' },
  },
});
/** Ends and number of ticks so that they stand on round values. */
function roundTicks(from: number, to: number) {
  const step = niceStep(to - from, 8);
  const [min, max] = [step * Math.floor(from / step), step * Math.ceil(to / step)];
  return { min, max, tickAmount: Math.round((max - min) / step) };
}
const base = (title: string, xTitle: string, yTitle: string, [from, to]: readonly [number, number]) => ({
  chart: {
    animations: { enabled: false },
    toolbar: { show: false },
    zoom: { enabled: false },
    fontFamily: 'Atkinson Hyperlegible Next',
    background: 'transparent',
  },
  title: { text: title, style: { fontFamily: 'Barlow Semi Condensed', fontWeight: 600, color: colours.ink } },
  stroke: { width: 2.5, curve: 'straight' as const },
  grid: { borderColor: colours.rule },
  legend: { show: false },
  tooltip: { shared: false, marker: { show: false } },
  xaxis: { type: 'numeric' as const, title: { text: xTitle }, decimalsInFloat: 0, ...roundTicks(from, to) },
  yaxis: { title: { text: yTitle }, min: 0, decimalsInFloat: 0, forceNiceScale: true },
});
const viscosityOptions = computed(() => {
  const { verdict, before } = forecast;
  const marks = [line(before!.open / 60, 'feed opens', colours.resinInk)];
  if (verdict && Number.isFinite(verdict.fillTime))
    marks.push(line(verdict.fillTime / 60, 'last corner', colours.moss));
  return {
    ...base('Viscosity from first mix to gel', 'minutes since first mix', viscosityUnit.value, [
      0,
      forecast.clock!.gelTime / 60,
    ]),
    colors: [colours.resin],
    annotations: { xaxis: marks },
  };
});
const gelOptions = computed(() => ({
  ...base('Gel time of a thin film against temperature', temperatureUnit.value, 'minutes', [
    gelCurve.value[0]!.x,
    gelCurve.value[gelCurve.value.length - 1]!.x,
  ]),
  colors: [colours.ember, colours.ink],
  markers: { size: [0, 5] },
  stroke: { width: [2.5, 0] },
  annotations: {
    xaxis: [
      line(toUnit(forecast.run!.temperature, 'temperature', temperatureUnit.value), 'now', colours.tide),
    ],
  },
}));
</script>

<template>
  <div class="charts">
    <VueApexCharts
      type="line"
      height="250"
      :options="viscosityOptions"
      :series="[{ name: 'viscosity', data: viscosity }]"
    />
    <VueApexCharts
      type="line"
      height="250"
      :options="gelOptions"
      :series="[
        { name: 'curve', data: gelCurve },
        { name: 'entered', data: gelPoints },
      ]"
    />
  </div>
</template>

<style scoped>
.charts {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 16px;
}
</style>
