<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useId } from 'vue';
import { linearTicks, logTicks, timeTicks } from './axis.ts';
import {
  pathsOf,
  rangeInSight,
  shareIn,
  zoomed,
  type ChartCurve,
  type ChartLine,
  type ChartMark,
  type Stretch,
} from './curve.ts';

/** Readings over time, that a hand can drag, and the wheel draw nearer; what happened is marked along the top. */
const props = defineProps<{
  curves: readonly ChartCurve[];
  lines: readonly ChartLine[];
  marks: readonly ChartMark[];
  /** Stretch that is looked at, ms since 1970, and where its clock begins. */
  from: number;
  to: number;
  origin: number;
  unit: string;
  isLog?: boolean;
  label: string;
  height?: number;
}>();
const emit = defineEmits<{ look: [from: number, to: number]; follow: [] }>();

const clip = useId();
const box = ref<HTMLElement | null>(null);
const width = ref(700);
const height = computed(() => props.height ?? 300);
const pad = { left: 52, right: 12, top: 22, bottom: 26 };
let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = Math.max(240, entry!.contentRect.width)));
  observer.observe(box.value!);
});
onBeforeUnmount(() => observer?.disconnect());

const inner = computed(() => ({
  width: width.value - pad.left - pad.right,
  height: height.value - pad.top - pad.bottom,
}));
const stretch = computed((): Stretch => ({ from: props.from, to: props.to }));
const range = computed(() => rangeInSight(props.curves, props.lines, stretch.value, props.isLog));
const x = (at: number) => pad.left + ((at - props.from) / (props.to - props.from)) * inner.value.width;
const y = (value: number) => pad.top + (1 - shareIn(range.value, value, props.isLog)) * inner.value.height;
const drawn = computed(() =>
  props.curves.map((curve) => ({ ...curve, ...pathsOf(curve, stretch.value, { x, y }) })),
);
const across = computed(() =>
  (props.isLog ? logTicks : linearTicks)(range.value.low, range.value.high, props.isLog ? 9 : 5),
);
const along = computed(() =>
  timeTicks(
    (props.from - props.origin) / 1000,
    (props.to - props.origin) / 1000,
    Math.max(3, width.value / 110),
  ),
);
const inSight = computed(() => props.marks.filter(({ at }) => at >= props.from && at <= props.to));
const legend = computed(() => props.curves.filter(({ ats }) => ats.length > 0));

function zoom(factor: number, share: number) {
  const { from, to } = zoomed(stretch.value, factor, share);
  emit('look', from, to);
}
let held: { x: number; from: number; to: number } | null = null;
let waiting: PointerEvent | null = null;
function press(event: PointerEvent) {
  const chart = event.currentTarget as SVGElement;
  chart.setPointerCapture(event.pointerId);
  chart.focus();
  held = { x: event.clientX, from: props.from, to: props.to };
}
/** Once a frame, however often the hand is heard. */
function move(event: PointerEvent) {
  if (!held) return;
  if (!waiting) requestAnimationFrame(drag);
  waiting = event;
}
function drag() {
  if (held && waiting) {
    const by = ((waiting.clientX - held.x) / inner.value.width) * (held.to - held.from);
    emit('look', held.from - by, held.to - by);
  }
  waiting = null;
}
/** Only where the chart has been touched: elsewhere the wheel scrolls the page. */
function wheel(event: WheelEvent) {
  if (!event.ctrlKey && document.activeElement !== event.currentTarget) return;
  event.preventDefault();
  const frame = box.value!.getBoundingClientRect();
  const share = Math.max(0, Math.min(1, (event.clientX - frame.left - pad.left) / inner.value.width));
  zoom(event.deltaY > 0 ? 1.25 : 0.8, share);
}
const STEP = 0.2;
function key(event: KeyboardEvent) {
  const by = STEP * (props.to - props.from);
  const keys: Record<string, () => void> = {
    ArrowLeft: () => emit('look', props.from - by, props.to - by),
    ArrowRight: () => emit('look', props.from + by, props.to + by),
    '+': () => zoom(0.7, 0.5),
    '-': () => zoom(1.4, 0.5),
    End: () => emit('follow'),
  };
  const act = keys[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}
</script>

<template>
  <div ref="box" class="chart">
    <svg
      :width="width"
      :height="height"
      role="img"
      tabindex="0"
      :aria-label="label"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="held = null"
      @pointercancel="held = null"
      @wheel="wheel"
      @keydown="key"
    >
      <clipPath :id="clip">
        <rect :x="pad.left" :y="pad.top" :width="inner.width" :height="inner.height" />
      </clipPath>
      <g class="grid">
        <g v-for="tick in across" :key="tick.label">
          <line :x1="pad.left" :x2="width - pad.right" :y1="y(tick.value)" :y2="y(tick.value)" />
          <text :x="pad.left - 6" :y="y(tick.value) + 4" text-anchor="end">{{ tick.label }}</text>
        </g>
        <text
          v-for="tick in along"
          :key="tick.value"
          :x="x(origin + tick.value * 1000)"
          :y="height - 8"
          text-anchor="middle"
        >
          {{ tick.label }}
        </text>
        <text :x="4" :y="13" class="unit">{{ unit }}</text>
      </g>
      <g :clip-path="`url(#${clip})`">
        <g v-for="{ id, kind, line, band } in drawn" :key="id" :class="['curve', kind]">
          <path v-if="band" :d="band" class="band" />
          <path :d="line" class="line" />
        </g>
        <g v-for="line in lines" :key="line.label" :class="['level', line.tone]">
          <line :x1="pad.left" :x2="width - pad.right" :y1="y(line.value)" :y2="y(line.value)" />
          <text :x="width - pad.right - 4" :y="y(line.value) - 4" text-anchor="end">{{ line.label }}</text>
        </g>
      </g>
      <g v-for="(mark, n) in inSight" :key="`${mark.at} ${n}`" class="mark">
        <line :x1="x(mark.at)" :x2="x(mark.at)" :y1="pad.top - 4" :y2="height - pad.bottom" />
        <text :x="x(mark.at) + 3" :y="pad.top - 8">{{ mark.label }}</text>
      </g>
    </svg>
    <p v-if="legend.length > 1" class="legend">
      <span v-for="{ id, label: words, kind } in legend" :key="id" :class="kind"><i></i>{{ words }}</span>
    </p>
  </div>
</template>

<style scoped>
.chart {
  width: 100%;
}
svg {
  display: block;
  touch-action: none;
  cursor: grab;
}
.grid line {
  stroke: var(--rule);
}
text {
  font: 400 12px var(--text);
  fill: var(--quiet);
}
.unit {
  font-weight: 600;
}
.curve .line {
  fill: none;
  stroke-width: 2;
  stroke-linejoin: round;
}
.band {
  stroke: none;
  opacity: 0.18;
}
.measured .line,
.legend .measured i {
  stroke: var(--tide);
  border-color: var(--tide);
}
.measured .band {
  fill: var(--tide);
}
.forecast .line,
.legend .forecast i {
  stroke: var(--ink);
  stroke-dasharray: 6 4;
  border-color: var(--ink);
  border-top-style: dashed;
}
.leak .line,
.legend .leak i {
  stroke: var(--ember);
  stroke-dasharray: 8 3;
  border-color: var(--ember);
  border-top-style: dashed;
}
.moisture .line,
.legend .moisture i {
  stroke: var(--resin);
  stroke-dasharray: 2 3;
  border-color: var(--resin);
  border-top-style: dotted;
}
.sum .line,
.legend .sum i {
  stroke: var(--ink);
  border-color: var(--ink);
  stroke-width: 1.2;
}
.level line {
  stroke-width: 1.4;
  stroke-dasharray: 1 3;
}
.level.tide line {
  stroke: var(--tide);
}
.level.ember line {
  stroke: var(--ember);
}
.level text {
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.mark line {
  stroke: var(--ink);
  stroke-width: 0.8;
}
.mark text {
  fill: var(--ink);
  font-weight: 600;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 2px 0 0;
  font-size: 12px;
  color: var(--quiet);
}
.legend i {
  display: inline-block;
  width: 22px;
  border-top: 2px solid;
  vertical-align: middle;
  margin-right: 6px;
}
</style>
