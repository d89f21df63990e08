<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { formatClock } from '@wick/core/units/format';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { fuseScale } from '../../ui/fuse/fuse-scale.ts';
import { shiftTurn, type Turn } from '@wick/plan/layout/sequence';
import { useScript } from './use-script.ts';

/** Every line open and shut against the fuse under it; drag a turn to have it sooner or later. */
const job = useSession();
const forecast = useForecast();
const script = useScript();
const root = ref<SVGSVGElement | null>(null);
const width = ref(1200);
const LANE = 19;

const gel = computed(() => forecast.clock?.gelTime ?? null);
const scale = computed(() => fuseScale(width.value, gel.value));
const end = computed(() => {
  const fill = forecast.verdict?.fillTime;
  return fill !== undefined && Number.isFinite(fill) ? fill : (gel.value ?? 3600);
});
const lanes = computed(() =>
  job.laid.lines
    .filter(({ kind }) => kind !== 'race')
    .map((line, row) => {
      const steps = script.value.filter(({ lineId }) => lineId === line.id);
      const turns = steps.flatMap((step) =>
        step.actionId !== null && step.time !== null && Number.isFinite(step.time)
          ? [{ ...step, time: step.time, actionId: step.actionId }]
          : [],
      );
      const changes = [
        ...(line.startsOpen
          ? [{ time: line.kind === 'vent' ? 0 : (forecast.before?.open ?? 0), opening: 1 }]
          : []),
        ...turns,
      ];
      const bars = changes.flatMap(({ time, opening }, i) => {
        const until = changes[i + 1]?.time ?? Math.max(end.value, time);
        return opening > 0 ? [{ from: scale.value.xOf(time), to: scale.value.xOf(until), opening }] : [];
      });
      return { line, y: row * LANE + LANE / 2, bars, turns };
    }),
);

let held: { turn: Turn; from: number } | null = null;
function grab(turn: Turn, event: PointerEvent) {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  held = { turn, from: event.clientX };
}
function drag(event: PointerEvent) {
  if (!held) return;
  const by = scale.value.timeAt(event.clientX) - scale.value.timeAt(held.from);
  job.preview(shiftTurn(held.turn, by));
}
function drop() {
  held = null;
  job.endGesture();
}
function onKey(turn: Turn, event: KeyboardEvent) {
  const by = { ArrowLeft: -60, ArrowRight: 60 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  job.apply(shiftTurn(turn, by));
}

const observer = new ResizeObserver(([entry]) => (width.value = Math.max(400, entry!.contentRect.width)));
onMounted(() => observer.observe(root.value!));
onBeforeUnmount(() => observer.disconnect());
</script>

<template>
  <svg
    ref="root"
    class="lanes"
    :height="lanes.length * LANE + 4"
    aria-label="Lines open and shut over time"
    data-testid="lanes"
  >
    <g v-for="{ line, y, bars, turns } in lanes" :key="line.id" :class="line.kind">
      <line :x1="scale.left" :x2="width - scale.left" :y1="y" :y2="y" class="rail" />
      <rect
        v-for="bar in bars"
        :key="bar.from"
        :x="bar.from"
        :y="y - 5 * bar.opening"
        :width="Math.max(0, bar.to - bar.from)"
        :height="10 * bar.opening"
        class="open"
      />
      <text :x="scale.left + 4" :y="y + 4.5">{{ line.name }}</text>
      <g
        v-for="turn in turns"
        :key="turn.actionId"
        class="turn"
        tabindex="0"
        role="slider"
        :aria-label="`${turn.order}, minute ${formatClock(turn.time)}`"
        :aria-valuenow="Math.round(turn.time / 60)"
        @pointerdown="grab({ lineId: line.id, actionId: turn.actionId }, $event)"
        @pointermove="drag"
        @pointerup="drop"
        @pointercancel="drop"
        @keydown="onKey({ lineId: line.id, actionId: turn.actionId }, $event)"
      >
        <circle :cx="scale.xOf(turn.time)" :cy="y" r="7" />
        <text :x="scale.xOf(turn.time) + 11" :y="y + 4.5">
          {{ turn.opening === 0 ? 'shut' : 'open' }} {{ formatClock(turn.time) }}
        </text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
.lanes {
  display: block;
  width: 100%;
  background: var(--sheet);
  border-top: 1px solid var(--rule);
}
.feed {
  --colour: var(--resin);
}
.vent {
  --colour: var(--tide);
}
.rail {
  stroke: var(--rule);
}
.open {
  fill: var(--colour);
  opacity: 0.42;
}
.turn {
  cursor: ew-resize;
  touch-action: none;
}
.turn circle {
  fill: var(--sheet);
  stroke: var(--colour);
  stroke-width: 2.5;
}
text {
  font: 500 12px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 3px;
  pointer-events: none;
}
</style>
