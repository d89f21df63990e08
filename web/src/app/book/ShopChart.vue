<script setup lang="ts">
import { ENOUGH_POINTS } from '@wick/core/charts/control-chart';
import { measureWords, type Measure, type Series } from '@wick/plan/review/over-time';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { linearTicks } from '../../ui/curve/axis.ts';

/** Parts one after the other with the limits their own scatter gives; what chance hardly explains stands out. Below it the steps from part to part. */
const props = defineProps<{ series: Series; measure: Measure }>();
const shop = useShopStore();
const box = ref<HTMLElement | null>(null);
const width = ref(900);
let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = Math.max(320, entry!.contentRect.width)));
  observer.observe(box.value!);
});
onBeforeUnmount(() => observer?.disconnect());

const TOP = 14;
const HEIGHT = 190;
const RANGES = 70;
const LEFT = 66;
const RIGHT = 96;
const words = computed(() => measureWords[props.measure]);
const values = computed(() => props.series.points.map(({ value }) => value));
const isEnough = computed(() => values.value.length >= ENOUGH_POINTS);
const chart = computed(() => props.series.chart);
const show = (value: number) => shop.show(value, words.value.quantity);
const x = (n: number) => LEFT + ((n + 0.5) / Math.max(1, values.value.length)) * (width.value - LEFT - RIGHT);
const limits = computed(() => (chart.value && isEnough.value ? [chart.value.lower, chart.value.upper] : []));
const range = computed(() => {
  const all = [...values.value, ...limits.value];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = 0.08 * (high - low || Math.abs(high) || 1);
  return { low: low - room, high: high + room };
});
const y = (value: number) =>
  TOP + (1 - (value - range.value.low) / (range.value.high - range.value.low)) * HEIGHT;
const ticks = computed(() => linearTicks(range.value.low, range.value.high, 5));
const line = computed(() =>
  values.value.map((value, n) => `${x(n).toFixed(1)},${y(value).toFixed(1)}`).join(' '),
);
const called = computed(() => new Set(isEnough.value ? chart.value?.signals.map(({ index }) => index) : []));
const mostRange = computed(
  () => Math.max(chart.value?.upperRange ?? 0, ...(chart.value?.ranges ?? [0])) || 1,
);
const yRange = (value: number) => TOP + HEIGHT + 26 + (1 - value / mostRange.value) * RANGES;
const ranges = computed(() =>
  (chart.value?.ranges ?? [])
    .map((value, n) => `${x(n + 1).toFixed(1)},${yRange(value).toFixed(1)}`)
    .join(' '),
);
const rules = computed(() => {
  const own = chart.value;
  if (!own) return [];
  return [
    { value: own.mean, text: `mean ${show(own.mean)}`, kind: 'mean' },
    ...(isEnough.value
      ? [
          { value: own.upper, text: `upper ${show(own.upper)}`, kind: 'limit' },
          { value: own.lower, text: `lower ${show(own.lower)}`, kind: 'limit' },
        ]
      : []),
  ];
});
/** So many parts apart that their numbers do not run into each other. */
const every = computed(() => Math.ceil((values.value.length * 44) / Math.max(1, width.value - LEFT - RIGHT)));
</script>

<template>
  <figure ref="box">
    <figcaption>
      <span
        ><b>{{ words.name }}</b
        ><span class="quiet">, part by part; above: {{ words.high }}, below: {{ words.low }}</span></span
      >
      <span class="legend"
        ><i class="good"></i>good <i class="rework"></i>rework <i class="scrap"></i>scrap</span
      >
    </figcaption>
    <p v-if="values.length === 0" class="quiet">Nobody has measured it on these parts.</p>
    <svg
      v-else
      :viewBox="`0 0 ${width} ${TOP + HEIGHT + RANGES + 56}`"
      :height="TOP + HEIGHT + RANGES + 56"
      role="img"
      :aria-label="`${words.name} of ${values.length} parts`"
      data-testid="chart"
    >
      <g v-for="tick in ticks" :key="tick.value" class="tick">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(tick.value)" :y2="y(tick.value)" />
        <text :x="LEFT - 6" :y="y(tick.value) + 4">{{ show(tick.value) }}</text>
      </g>
      <g v-for="rule in rules" :key="rule.text" :class="rule.kind">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(rule.value)" :y2="y(rule.value)" />
        <text :x="width - RIGHT + 6" :y="y(rule.value) + 4">{{ rule.text }}</text>
      </g>
      <polyline :points="line" class="line" />
      <g v-for="(point, n) in series.points" :key="point.line.runId">
        <circle
          :cx="x(n)"
          :cy="y(point.value)"
          :r="called.has(n) ? 6 : 4"
          :class="['point', point.line.figures.outcome, { called: called.has(n) }]"
        >
          <title>{{ point.line.jobName }} {{ point.line.number }}: {{ show(point.value) }}</title>
        </circle>
        <text v-if="n % every === 0" :x="x(n)" :y="TOP + HEIGHT + RANGES + 48" class="part">
          {{ point.line.number }}
        </text>
      </g>
      <template v-if="chart">
        <line
          class="mean"
          :x1="LEFT"
          :x2="width - RIGHT"
          :y1="yRange(chart.meanRange)"
          :y2="yRange(chart.meanRange)"
        />
        <g v-if="isEnough" class="limit">
          <line
            :x1="LEFT"
            :x2="width - RIGHT"
            :y1="yRange(chart.upperRange)"
            :y2="yRange(chart.upperRange)"
          />
          <text :x="width - RIGHT + 6" :y="yRange(chart.upperRange) + 4">
            step {{ show(chart.upperRange) }}
          </text>
        </g>
        <polyline :points="ranges" class="line ranges" />
        <text :x="LEFT - 6" :y="yRange(chart.meanRange) + 4" class="end">steps</text>
      </template>
      <text :x="LEFT - 6" :y="TOP + HEIGHT + RANGES + 48" class="end">part</text>
    </svg>
    <p v-if="values.length > 0 && !isEnough" class="quiet">
      Limits are drawn from {{ ENOUGH_POINTS }} parts on: there are {{ values.length }}.
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 12px 0 6px;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.legend {
  margin-left: auto;
  padding-right: 96px;
}
.legend i {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  margin: 0 2px 0 10px;
}
.legend .good {
  background: var(--tide);
}
.legend .rework {
  background: var(--resin);
}
.legend .scrap {
  background: var(--ember);
}
svg {
  display: block;
  width: 100%;
}
text {
  font: 500 12px var(--display);
  fill: var(--quiet);
}
.tick line {
  stroke: var(--rule);
}
.tick text,
.end {
  text-anchor: end;
}
.mean line,
line.mean {
  stroke: var(--ink);
}
.limit line {
  stroke: var(--ember);
  stroke-dasharray: 6 4;
}
.limit text {
  fill: var(--ember);
}
.line {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.5;
}
.point {
  fill: var(--tide);
}
.point.rework {
  fill: var(--resin);
}
.point.scrap {
  fill: var(--ember);
}
.point.called {
  stroke: var(--ink);
  stroke-width: 2;
}
.part {
  text-anchor: middle;
}
</style>
