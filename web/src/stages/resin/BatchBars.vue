<script setup lang="ts">
import { timeDrawn } from '@wick/core/mix/draw-down';
import { formatClock } from '@wick/core/units/format';
import { changeBatch } from '@wick/plan/resin/edits';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { lastOf, snapped, timeOn, type TimeScale } from './draw-down.ts';

/** Batches as bars over time: mixed, poured, gone. A hand moves all but the first, which starts the clock. */
const props = defineProps<{ scale: TimeScale }>();
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const LANE = 34;
const WORDS = 190;

const x = (time: number) => timeOn(props.scale, time);
const bars = computed(() => {
  const before = new Map<number, number>();
  return bench.batches.map((batch, n) => {
    const poured = (before.get(batch.pot) ?? 0) + batch.mass;
    before.set(batch.pot, poured);
    const draw = bench.draw?.pots[batch.pot]?.middle;
    const gone = draw ? Math.min(lastOf(draw.times), timeDrawn(draw, poured)) : batch.pouredAt;
    const canMove = batch.id !== null && n > 0;
    const isWrong = bench.faults.some((fault) => fault.batch === n);
    return { ...batch, n, gone: Math.max(gone, batch.pouredAt), canMove, isWrong, y: LANE * n };
  });
});

let grip: { readonly x: number; readonly mixedAt: number } | null = null;
let waiting: number | null = null;
function press(event: PointerEvent, n: number) {
  const bar = bars.value[n]!;
  if (!bar.canMove) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  grip = { x: event.clientX, mixedAt: bar.mixedAt };
  bench.held = { index: n, mixedAt: bar.mixedAt };
}
/** Once a frame, however often the hand is heard. */
function move(event: PointerEvent) {
  if (!grip) return;
  if (waiting === null) requestAnimationFrame(drag);
  waiting = event.clientX;
}
function drag() {
  if (grip && waiting !== null && bench.held) {
    const by = ((waiting - grip.x) / props.scale.inner) * props.scale.end;
    bench.held = { ...bench.held, mixedAt: snapped(grip.mixedAt + by, props.scale.end) };
  }
  waiting = null;
}
function release() {
  drag();
  const { held } = bench;
  bench.held = null;
  if (held && grip && held.mixedAt !== grip.mixedAt) settle(held.index, held.mixedAt);
  grip = null;
}
function cancel() {
  grip = null;
  bench.held = null;
}
const settle = (n: number, mixedAt: number) =>
  job.apply(changeBatch(bars.value[n]!.id!, { mixedAt }), `batch ${n + 1} at ${formatClock(mixedAt)}`);
function key(event: KeyboardEvent, n: number) {
  const by = { ArrowLeft: -60, ArrowRight: 60 }[event.key];
  const bar = bars.value[n]!;
  if (by === undefined || !bar.canMove) return;
  event.preventDefault();
  event.stopPropagation();
  settle(n, snapped(bar.mixedAt + by, props.scale.end));
}
</script>

<template>
  <svg :width="scale.width" :height="LANE * bars.length" role="group" aria-label="Batches over time">
    <g
      v-for="bar in bars"
      :key="bar.n"
      :class="['batch', { wrong: bar.isWrong, fixed: !bar.canMove, held: bench.held?.index === bar.n }]"
      :tabindex="bar.canMove ? 0 : -1"
      role="slider"
      :aria-label="`Batch ${bar.n + 1}, mixed after the first mix`"
      :aria-valuenow="Math.round(bar.mixedAt / 60)"
      aria-valuemin="0"
      :aria-valuemax="Math.round(scale.end / 60)"
      :aria-valuetext="`${formatClock(bar.mixedAt)}, ${shop.show(bar.mass, 'mass')}`"
      :data-testid="`batch-${bar.n + 1}`"
      @pointerdown="press($event, bar.n)"
      @pointermove="move"
      @pointerup="release"
      @pointercancel="cancel"
      @keydown="key($event, bar.n)"
    >
      <rect
        class="reach"
        :x="x(bar.mixedAt)"
        :y="bar.y"
        :width="Math.max(44, x(bar.gone) - x(bar.mixedAt))"
        :height="LANE"
      />
      <rect
        class="stays"
        :x="x(bar.pouredAt)"
        :y="bar.y + 9"
        :width="Math.max(2, x(bar.gone) - x(bar.pouredAt))"
        height="14"
      />
      <rect
        class="mix"
        :x="x(bar.mixedAt)"
        :y="bar.y + 5"
        :width="Math.max(6, x(bar.pouredAt) - x(bar.mixedAt))"
        height="22"
        rx="2"
      />
      <text :x="Math.max(scale.left - 8, x(bar.mixedAt) - 6)" :y="bar.y + 20" text-anchor="end">
        {{ bar.n + 1 }}
      </text>
      <text class="words" :x="Math.min(x(bar.gone) + 8, scale.width - WORDS)" :y="bar.y + 20">
        {{ shop.show(bar.mass, 'mass') }}, mix {{ formatClock(bar.mixedAt) }}, pour
        {{ formatClock(bar.pouredAt) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  touch-action: none;
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
.reach {
  fill: transparent;
}
.mix {
  fill: var(--resin);
}
.stays {
  fill: var(--resin);
  fill-opacity: 0.3;
}
.wrong rect.mix,
.wrong rect.stays {
  fill: var(--ember);
}
text {
  font: 400 12px var(--text);
  fill: var(--ink);
  pointer-events: none;
}
.words {
  font: 500 13px var(--display);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
