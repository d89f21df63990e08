<script setup lang="ts">
import { timeDrawn } from '@wick/core/mix/draw-down';
import { formatClock, toUnit } from '@wick/core/units/format';
import { changeBatch } from '@wick/plan/resin/edits';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { niceStep } from '../../board/viewport.ts';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { bandPath, linePath, snapped } from './draw-down.ts';

/** Resin in each pot over the fuse's own time; under it the batches as bars that a hand moves. */
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const box = ref<HTMLElement | null>(null);
const width = ref(760);
const HEIGHT = 190;
const LANE = 34;
const pad = { left: 50, right: 14, top: 18, bottom: 24 };
let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = Math.max(320, entry!.contentRect.width)));
  observer.observe(box.value!);
});
onBeforeUnmount(() => observer?.disconnect());

const lastOf = (times: ArrayLike<number>) => (times.length > 0 ? times[times.length - 1]! : 0);
/** While a hand holds a batch the scale stays as it is. */
let kept = 3600;
const end = computed(() => {
  if (bench.held) return kept;
  const drawn = (bench.draw?.pots ?? []).flatMap(({ slow, middle }) => [slow, middle]);
  const used = Math.max(
    600,
    ...drawn.map(({ times }) => lastOf(times)),
    ...bench.batches.map(({ pouredAt }) => pouredAt),
  );
  return (kept = 1.12 * used);
});
const top = computed(
  () =>
    1.12 *
    Math.max(0.1, ...bench.stocks.map(({ slow, middle }) => Math.max(slow.most.mass, middle.most.mass))),
);
const inner = computed(() => ({
  width: width.value - pad.left - pad.right,
  height: HEIGHT - pad.top - pad.bottom,
}));
const x = (time: number) => pad.left + (Math.min(time, end.value) / end.value) * inner.value.width;
const y = (mass: number) =>
  pad.top + (1 - Math.max(-0.04 * top.value, mass) / top.value) * inner.value.height;
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
  const step = Math.max(1, niceStep(end.value / 60, Math.max(3, width.value / 110))) * 60;
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, n) => n * step);
});
const charts = computed(() =>
  bench.stocks.map(({ pot, middle, fast, slow }, n) => ({
    ...{ n, pot },
    middle: linePath(middle.line, x, y),
    band: bandPath(fast.line, slow.line, end.value, x, y),
    dryAt: fast.dryAt,
    ends: middle.line.at(-1),
  })),
);
const marks = computed(() => {
  const own = [
    { time: forecast.before?.open ?? null, label: 'feed opens' },
    { time: forecast.verdict?.fillTime ?? null, label: 'last corner' },
  ];
  return own.filter(
    (mark): mark is { time: number; label: string } => mark.time !== null && mark.time < end.value,
  );
});
const gel = computed(() =>
  forecast.clock && forecast.clock.gelTime < end.value ? forecast.clock.gelTime : null,
);
const bars = computed(() => {
  const before = new Map<number, number>();
  return bench.batches.map((batch, n) => {
    const poured = (before.get(batch.pot) ?? 0) + batch.mass;
    before.set(batch.pot, poured);
    const draw = bench.draw?.pots[batch.pot]?.middle;
    const gone = draw ? Math.min(lastOf(draw.times), timeDrawn(draw, poured)) : batch.pouredAt;
    return {
      ...batch,
      ...{ n, gone: Math.max(gone, batch.pouredAt) },
      isWrong: bench.faults.some((fault) => fault.batch === n),
      isFirst: n === 0,
    };
  });
});
const lanes = computed(() => LANE * bars.value.length);

let grip: { readonly x: number; readonly mixedAt: number } | null = null;
let waiting: number | null = null;
const canMove = (n: number) => bars.value[n]!.id !== null && !bars.value[n]!.isFirst;
function press(event: PointerEvent, n: number) {
  if (!canMove(n)) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  grip = { x: event.clientX, mixedAt: bars.value[n]!.mixedAt };
  bench.held = { index: n, mixedAt: grip.mixedAt };
}
/** Once a frame, however often the hand is heard. */
function move(event: PointerEvent) {
  if (!grip) return;
  if (waiting === null) requestAnimationFrame(drag);
  waiting = event.clientX;
}
function drag() {
  if (grip && waiting !== null && bench.held) {
    const by = ((waiting - grip.x) / inner.value.width) * end.value;
    bench.held = { ...bench.held, mixedAt: snapped(grip.mixedAt + by, end.value) };
  }
  waiting = null;
}
function release() {
  const held = bench.held;
  drag();
  const mixedAt = bench.held?.mixedAt;
  bench.held = null;
  if (held && grip && mixedAt !== undefined && mixedAt !== grip.mixedAt) settle(held.index, mixedAt);
  grip = null;
}
const settle = (n: number, mixedAt: number) =>
  job.apply(changeBatch(bars.value[n]!.id!, { mixedAt }), `batch ${n + 1} at ${formatClock(mixedAt)}`);
function key(event: KeyboardEvent, n: number) {
  const by = { ArrowLeft: -60, ArrowRight: 60 }[event.key];
  if (by === undefined || !canMove(n)) return;
  event.preventDefault();
  event.stopPropagation();
  settle(n, snapped(bars.value[n]!.mixedAt + by, end.value));
}
</script>

<template>
  <div ref="box" class="chart">
    <svg
      v-for="chart in charts"
      :key="chart.n"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`Resin in ${chart.pot.pot.name} over time`"
      data-testid="draw-down"
    >
      <text :x="4" :y="12" class="unit">
        {{ unit }}{{ charts.length > 1 ? ` in ${chart.pot.pot.name}` : ' in the pot' }}
      </text>
      <g class="grid">
        <g v-for="tick in across" :key="tick.label">
          <line :x1="pad.left" :x2="width - pad.right" :y1="y(tick.mass)" :y2="y(tick.mass)" />
          <text :x="pad.left - 6" :y="y(tick.mass) + 4" text-anchor="end">{{ tick.label }}</text>
        </g>
        <text v-for="time in along" :key="time" :x="x(time)" :y="HEIGHT - 7" text-anchor="middle">
          {{ time / 60 }}{{ time > 0 ? '' : ' min' }}
        </text>
      </g>
      <rect
        class="floor"
        :x="pad.left"
        :y="y(chart.pot.heel)"
        :width="inner.width"
        :height="y(0) - y(chart.pot.heel)"
      />
      <line
        class="floor"
        :x1="pad.left"
        :x2="width - pad.right"
        :y1="y(chart.pot.heel)"
        :y2="y(chart.pot.heel)"
      />
      <text class="floor" :x="pad.left + 6" :y="y(chart.pot.heel) - 4">below this the hose draws air</text>
      <path :d="chart.band" class="band" />
      <path :d="chart.middle" class="middle" />
      <g v-for="mark in marks" :key="mark.label" class="mark">
        <line :x1="x(mark.time)" :x2="x(mark.time)" :y1="pad.top" :y2="y(0)" />
        <text :x="x(mark.time) + 3" :y="pad.top + 8">{{ mark.label }}</text>
      </g>
      <line v-if="gel !== null" class="gel" :x1="x(gel)" :x2="x(gel)" :y1="pad.top" :y2="y(0)" />
      <g v-if="chart.dryAt !== null" class="dry" data-testid="dry">
        <circle :cx="x(chart.dryAt)" :cy="y(chart.pot.heel)" r="6" />
        <text :x="x(chart.dryAt) + 9" :y="y(chart.pot.heel) - 16">dry at {{ formatClock(chart.dryAt) }}</text>
      </g>
    </svg>
    <p v-if="charts.length > 0" class="legend quiet">
      <span><i class="middle"></i>as forecast</span>
      <span><i class="band"></i>between its fast and its slow side, one in ten beyond either</span>
    </p>
    <svg
      v-if="charts.length > 0"
      :width="width"
      :height="lanes"
      class="lanes"
      role="group"
      aria-label="Batches over time"
    >
      <g
        v-for="bar in bars"
        :key="bar.n"
        :class="['batch', { wrong: bar.isWrong, fixed: !canMove(bar.n), held: bench.held?.index === bar.n }]"
        :tabindex="canMove(bar.n) ? 0 : -1"
        role="slider"
        :aria-label="`Batch ${bar.n + 1}, mixed after the first mix`"
        :aria-valuenow="Math.round(bar.mixedAt / 60)"
        aria-valuemin="0"
        :aria-valuemax="Math.round(end / 60)"
        :aria-valuetext="`${formatClock(bar.mixedAt)}, ${shop.show(bar.mass, 'mass')}`"
        :data-testid="`batch-${bar.n + 1}`"
        @pointerdown="press($event, bar.n)"
        @pointermove="move"
        @pointerup="release"
        @pointercancel="release"
        @keydown="key($event, bar.n)"
      >
        <rect
          class="reach"
          :x="x(bar.mixedAt)"
          :y="LANE * bar.n"
          :width="Math.max(44, x(bar.gone) - x(bar.mixedAt))"
          :height="LANE"
        />
        <rect
          class="stays"
          :x="x(bar.pouredAt)"
          :y="LANE * bar.n + 9"
          :width="Math.max(2, x(bar.gone) - x(bar.pouredAt))"
          height="14"
        />
        <rect
          class="mix"
          :x="x(bar.mixedAt)"
          :y="LANE * bar.n + 5"
          :width="Math.max(6, x(bar.pouredAt) - x(bar.mixedAt))"
          height="22"
          rx="2"
        />
        <text
          v-if="x(bar.mixedAt) > pad.left + 10"
          :x="x(bar.mixedAt) - 6"
          :y="LANE * bar.n + 20"
          text-anchor="end"
        >
          {{ bar.n + 1 }}
        </text>
        <text v-else :x="pad.left - 8" :y="LANE * bar.n + 20" text-anchor="end">{{ bar.n + 1 }}</text>
        <text
          class="words"
          :x="Math.min(x(Math.max(bar.gone, bar.pouredAt)) + 8, width - 190)"
          :y="LANE * bar.n + 20"
        >
          {{ shop.show(bar.mass, 'mass') }}, mix {{ formatClock(bar.mixedAt) }}, pour
          {{ formatClock(bar.pouredAt) }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.chart {
  width: 100%;
}
svg {
  display: block;
}
.lanes {
  touch-action: none;
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
  stroke: none;
}
path.middle {
  fill: none;
  stroke: var(--resin-ink);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
rect.floor {
  fill: var(--ember);
  fill-opacity: 0.12;
}
line.floor {
  stroke: var(--ember);
  stroke-width: 1.5;
}
text.floor {
  fill: var(--ember);
  font-size: 11px;
}
.mark line {
  stroke: var(--ink);
  stroke-dasharray: 2 3;
}
.mark text {
  fill: var(--ink);
}
.gel {
  stroke: var(--ember);
}
.dry circle {
  fill: none;
  stroke: var(--ember);
  stroke-width: 3;
}
.dry text {
  fill: var(--ember);
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.batch {
  cursor: grab;
}
.batch.fixed {
  cursor: default;
}
.batch.held {
  cursor: grabbing;
}
.batch .reach {
  fill: transparent;
}
.batch .mix {
  fill: var(--resin);
}
.batch .stays {
  fill: var(--resin);
  fill-opacity: 0.3;
}
.batch.wrong .mix {
  fill: var(--ember);
}
.batch.wrong .stays {
  fill: var(--ember);
}
.batch text {
  fill: var(--ink);
  pointer-events: none;
}
.batch .words {
  font: 500 13px var(--display);
}
.legend {
  display: flex;
  gap: 4px 18px;
  margin: 0 0 4px 50px;
  font-size: 12px;
}
.legend i {
  display: inline-block;
  width: 22px;
  vertical-align: middle;
  margin-right: 6px;
}
.legend i.middle {
  border-top: 2.5px solid var(--resin-ink);
}
.legend i.band {
  height: 10px;
  background: var(--resin);
  opacity: 0.25;
}
</style>
