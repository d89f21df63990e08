<script setup lang="ts">
import { formatClock, toUnit } from '@wick/core/units/format';
import { computed } from 'vue';
import { niceStep } from '../../board/viewport.ts';
import { useForecast } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { ResinBench } from './bench.ts';
import { bandPath, linePath, timeOn, type TimeScale } from './draw-down.ts';

/** Resin in one pot over time: the line, its fast and slow side, and the floor under which the hose draws air. */
const props = defineProps<{
  stock: ResinBench['stocks'][number];
  scale: TimeScale;
  /** Of the pot, where there is more than one. */
  name: string | null;
}>();
const shop = useShopStore();
const forecast = useForecast();
const HEIGHT = 190;
const [TOP, BOTTOM] = [18, 24];

const x = (time: number) => timeOn(props.scale, time);
const right = computed(() => props.scale.left + props.scale.inner);
const top = computed(() => 1.12 * Math.max(0.1, props.stock.slow.most.mass, props.stock.middle.most.mass));
const y = (mass: number) => TOP + (1 - Math.max(0, mass) / top.value) * (HEIGHT - TOP - BOTTOM);
const floor = computed(() => props.stock.pot.floor);
const unit = computed(() => shop.unit('mass'));
const across = computed(() => {
  const shown = toUnit(top.value, 'mass', unit.value);
  const step = niceStep(shown, 4);
  return Array.from({ length: Math.floor(shown / step) + 1 }, (_, n) => ({
    mass: (n * step * top.value) / shown,
    label: String(Number((n * step).toPrecision(6))),
  }));
});
const along = computed(() => {
  const { end, inner } = props.scale;
  const step = Math.max(1, niceStep(end / 60, Math.max(3, inner / 110))) * 60;
  return Array.from({ length: Math.floor(end / step) + 1 }, (_, n) => n * step);
});
const middle = computed(() => linePath(props.stock.middle.line, x, y));
const band = computed(() => bandPath(props.stock.fast.line, props.stock.slow.line, props.scale.end, x, y));
const marks = computed(() =>
  [
    { time: forecast.before?.open ?? null, label: 'feed opens', kind: 'event' },
    { time: forecast.verdict?.fillTime ?? null, label: 'last corner', kind: 'event' },
    { time: forecast.clock?.gelTime ?? null, label: 'gel', kind: 'gel' },
  ].flatMap(({ time, ...mark }) => (time !== null && time < props.scale.end ? [{ time, ...mark }] : [])),
);
</script>

<template>
  <svg
    :width="scale.width"
    :height="HEIGHT"
    role="img"
    :aria-label="`Resin in ${name ?? 'the pot'} over time`"
    data-testid="draw-down"
  >
    <text :x="4" :y="12" class="unit">{{ unit }} in {{ name ?? 'the pot' }}</text>
    <g class="grid">
      <g v-for="tick in across" :key="tick.label">
        <line :x1="scale.left" :x2="right" :y1="y(tick.mass)" :y2="y(tick.mass)" />
        <text :x="scale.left - 6" :y="y(tick.mass) + 4" text-anchor="end">{{ tick.label }}</text>
      </g>
      <text v-for="time in along" :key="time" :x="x(time)" :y="HEIGHT - 7" text-anchor="middle">
        {{ time / 60 }}{{ time > 0 ? '' : ' min' }}
      </text>
    </g>
    <g class="floor">
      <rect :x="scale.left" :y="y(floor)" :width="scale.inner" :height="y(0) - y(floor)" />
      <line :x1="scale.left" :x2="right" :y1="y(floor)" :y2="y(floor)" />
      <text :x="right - 4" :y="y(floor) - 4" text-anchor="end">below this the hose draws air</text>
    </g>
    <path :d="band" class="band" />
    <path :d="middle" class="middle" />
    <g v-for="mark in marks" :key="mark.label" :class="['mark', mark.kind]">
      <line :x1="x(mark.time)" :x2="x(mark.time)" :y1="TOP" :y2="y(0)" />
      <text :x="x(mark.time) + 3" :y="TOP + (mark.kind === 'gel' ? 22 : 8)">{{ mark.label }}</text>
    </g>
    <g v-if="stock.fast.dryAt !== null" class="dry" data-testid="dry">
      <circle :cx="x(stock.fast.dryAt)" :cy="y(floor)" r="6" />
      <text :x="x(stock.fast.dryAt) + 9" :y="y(floor) - 16">dry at {{ formatClock(stock.fast.dryAt) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
text {
  font: 400 12px var(--text);
  fill: var(--quiet);
}
.unit {
  font-weight: 600;
}
.grid line {
  stroke: var(--rule);
}
.band {
  fill: var(--resin);
  fill-opacity: 0.2;
}
.middle {
  fill: none;
  stroke: var(--resin-ink);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.floor rect {
  fill: var(--ember);
  fill-opacity: 0.12;
}
.floor line {
  stroke: var(--ember);
  stroke-width: 1.5;
}
.floor text,
.dry text {
  fill: var(--ember);
  font-size: 11px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.mark line {
  stroke: var(--ink);
  stroke-dasharray: 2 3;
}
.mark text {
  fill: var(--ink);
}
.mark.gel line {
  stroke: var(--ember);
  stroke-dasharray: none;
}
.mark.gel text {
  fill: var(--ember);
}
.dry circle {
  fill: none;
  stroke: var(--ember);
  stroke-width: 3;
}
.dry text {
  font-size: 12px;
  font-weight: 700;
}
</style>
