<script setup lang="ts">
import type { Bag } from '@wick/plan/bag/bag';
import type { BagSection } from '@wick/plan/bag/sections';
import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { portsOf } from '@wick/plan/stack/regions';
import { computed, ref } from 'vue';
import TapeFigure from '../../board/TapeFigure.vue';
import { fitViewport, pathOf, toPlan, toScreen } from '../../board/viewport.ts';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The tape line with its pleats as ticks, each with its height; rises and corners; where it is cut. */
const props = defineProps<{
  bag: Bag;
  section: BagSection | null;
  /** A hand is about to draw a section. */
  isDrawing: boolean;
}>();
const emit = defineEmits<{ choose: [id: string]; draw: [from: Point, to: Point] }>();
const job = useSession();
const shop = useShopStore();
const size = { width: 440, height: 270 };
const TICK = 12;

const outline = computed(() => polygonOf(job.laid.part.outline));
const view = computed(() => fitViewport(boundsOf([...outline.value, ...props.bag.tapeLine]), size, 58));
const rings = computed(() => [outline.value, ...job.laid.part.holes.map((hole) => polygonOf(hole.outline))]);
const svg = ref<SVGSVGElement | null>(null);
const drawn = ref<{ from: Point; to: Point } | null>(null);
function placeOf(event: PointerEvent): Point {
  const frame = svg.value!.getBoundingClientRect();
  const scale = size.width / frame.width;
  return toPlan(view.value, {
    x: (event.clientX - frame.left) * scale,
    y: (event.clientY - frame.top) * scale,
  });
}
function begin(event: PointerEvent) {
  if (!props.isDrawing) return;
  svg.value!.setPointerCapture(event.pointerId);
  const from = placeOf(event);
  drawn.value = { from, to: from };
}
function drag(event: PointerEvent) {
  if (drawn.value) drawn.value = { ...drawn.value, to: placeOf(event) };
}
/** Shorter than this it was a slip of the hand, m. */
const SHORTEST = 0.01;
function end(event: PointerEvent) {
  if (!drawn.value) return;
  const { from } = drawn.value;
  const to = placeOf(event);
  drawn.value = null;
  if (Math.hypot(to.x - from.x, to.y - from.y) > SHORTEST) emit('draw', from, to);
}

/** Where hoses come through the bag. */
const ports = computed(() => portsOf(job.laid));
/** Outward from the part. */
const ticks = computed(() =>
  props.bag.pleats.map(({ place, height, name }, n) => {
    const at = toScreen(view.value, place);
    const foot = toScreen(view.value, nearestOnLine(place, [...outline.value, outline.value[0]!]).point);
    const length = Math.hypot(at.x - foot.x, at.y - foot.y) || 1;
    const way: Point = { x: (at.x - foot.x) / length, y: (at.y - foot.y) / length };
    return { id: `${name} ${n}`, at, way, height };
  }),
);
</script>

<template>
  <svg
    ref="svg"
    :class="{ drawing: isDrawing }"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    aria-label="Tape line with its pleats"
    data-testid="pleat-plan"
    @pointerdown="begin"
    @pointermove="drag"
    @pointerup="end"
    @pointercancel="drawn = null"
  >
    <TapeFigure :view="view" :rings="rings" :tape-line="bag.tapeLine" :features="job.laid.part.features" />
    <path
      v-for="own in bag.sections"
      :key="own.id"
      :d="pathOf(view, own.points, false)"
      :class="['cut', { here: own.id === section?.id }]"
      @click="emit('choose', own.id)"
    />
    <circle
      v-for="(port, n) in ports"
      :key="`port ${n}`"
      :cx="toScreen(view, port).x"
      :cy="toScreen(view, port).y"
      r="4"
      class="port"
    />
    <path v-if="drawn" :d="pathOf(view, [drawn.from, drawn.to], false)" class="cut here" />
    <g v-for="{ id, at, way, height } in ticks" :key="id" class="pleat">
      <line :x1="at.x" :y1="at.y" :x2="at.x + TICK * way.x" :y2="at.y + TICK * way.y" />
      <text
        :x="at.x + (TICK + 4) * way.x"
        :y="at.y + (TICK + 10) * way.y + 4"
        :text-anchor="way.x > 0.5 ? 'start' : way.x < -0.5 ? 'end' : 'middle'"
      >
        {{ shop.show(height, 'length') }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
  touch-action: none;
}
.drawing {
  cursor: crosshair;
}
.cut {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1;
  stroke-dasharray: 1 4;
  cursor: pointer;
}
.cut.here {
  stroke: var(--resin-ink);
  stroke-width: 2;
}
.port {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.pleat line {
  stroke: var(--ember);
  stroke-width: 2.4;
}
.pleat text {
  font: 600 12px var(--display);
  fill: var(--ember);
}
</style>
