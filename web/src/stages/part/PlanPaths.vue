<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { distance, type Point } from '@wick/core/geometry/polygon';
import { offset } from '@wick/core/geometry/overlay';
import type { Snapped } from '@wick/core/geometry/snap';
import { partPatch } from '@wick/plan/part/patch';
import { computed } from 'vue';
import { pathOf, toScreen, type Viewport } from '../../board/viewport.ts';
import { ringAt, type RingRef } from '@wick/plan/part/edits';
import { useShopStore } from '../../data/shop-store.ts';

/** What lies on the plan besides the part itself: flange, zones, rises, lines, and what is being drawn. */
const props = defineProps<{
  view: Viewport;
  selected: RingRef;
  drawn: readonly Point[];
  stretch: readonly [Point, Point] | null;
  isBox: boolean;
  pointer: Snapped | null;
  grid: number | null;
}>();
const job = useSession();
const shop = useShopStore();
const document = computed(() => job.laid);

const flange = computed(() => {
  const { part } = document.value;
  // While a hand drags the outline its margin would only follow a frame late.
  if (!part.flange || job.isGesturing) return [];
  try {
    return offset([{ ...partPatch(part), holes: [] }], part.flange).map(({ outline }) => outline);
  } catch {
    return [];
  }
});
const zones = computed(() =>
  document.value.zones.map((zone) => {
    const polygon = polygonOf(zone.outline);
    return {
      id: zone.id,
      name: zone.name,
      path: pathOf(props.view, polygon, true),
      at: toScreen(props.view, topLeft(polygon)),
      isBrake: zone.purpose === 'brake',
    };
  }),
);
function topLeft(polygon: readonly Point[]): Point {
  return polygon.reduce((best, p) => (p.y - p.x > best.y - best.x ? p : best));
}
const chosen = computed(() => pathOf(props.view, polygonOf(ringAt(job.document, props.selected)), true));
const draft = computed(() => {
  if (props.drawn.length === 0) return null;
  const points = props.pointer ? [...props.drawn, props.pointer.point] : [...props.drawn];
  const last = points.slice(-2);
  return {
    path: pathOf(props.view, points, false),
    dots: props.drawn.map((p) => toScreen(props.view, p)),
    length:
      last.length === 2 && distance(last[0]!, last[1]!) > 1e-4
        ? shop.show(distance(last[0]!, last[1]!), 'length')
        : '',
    at: toScreen(props.view, points.at(-1)!),
  };
});
const stretched = computed(() => {
  if (!props.stretch) return null;
  const [a, b] = props.stretch;
  const corners = props.isBox ? [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] : [a, b];
  const words = props.isBox
    ? `${shop.show(Math.abs(b.x - a.x), 'length')} × ${shop.show(Math.abs(b.y - a.y), 'length')}`
    : shop.show(distance(a, b), 'length');
  return { path: pathOf(props.view, corners, props.isBox), words, at: toScreen(props.view, b) };
});
const guides = computed(() =>
  (props.pointer?.guides ?? []).map((ends) => pathOf(props.view, ends, false)).join(''),
);
</script>

<template>
  <g class="under">
    <path v-for="(ring, i) in flange" :key="`flange${i}`" :d="pathOf(view, ring, true)" class="flange" />
    <path
      v-for="line in document.lines"
      :key="line.id"
      :d="pathOf(view, line.points, false)"
      :class="['line', line.kind]"
    />
    <g v-for="zone in zones" :key="zone.id">
      <path :d="zone.path" :class="['zone', { brake: zone.isBrake }]" />
      <text :x="zone.at.x + 6" :y="zone.at.y + 15" class="name">{{ zone.name }}</text>
    </g>
    <path
      v-for="feature in document.part.features"
      :key="feature.id"
      :d="pathOf(view, feature.points, false)"
      :class="['feature', feature.kind]"
    />
    <path v-if="selected.kind !== 'outline'" :d="chosen" class="chosen" />
    <path v-if="guides" :d="guides" class="guide" />
    <g v-if="draft">
      <path :d="draft.path" class="draft" />
      <circle v-for="(dot, i) in draft.dots" :key="i" :cx="dot.x" :cy="dot.y" r="4" class="dot" />
      <text :x="draft.at.x + 12" :y="draft.at.y - 10" class="live">{{ draft.length }}</text>
    </g>
    <g v-if="stretched">
      <path :d="stretched.path" class="draft" />
      <text :x="stretched.at.x + 12" :y="stretched.at.y - 10" class="live">{{ stretched.words }}</text>
    </g>
    <circle
      v-if="pointer && pointer.kind !== 'free'"
      :cx="toScreen(view, pointer.point).x"
      :cy="toScreen(view, pointer.point).y"
      r="9"
      class="caught"
    />
  </g>
</template>

<style scoped>
.under {
  pointer-events: none;
}
path {
  fill: none;
}
.flange {
  stroke: var(--quiet);
  stroke-dasharray: 1 5;
  stroke-width: 1.6;
  stroke-linecap: round;
}
.zone {
  fill: #c7770012;
  stroke: var(--ink);
  stroke-width: 1.1;
  stroke-dasharray: 5 4;
}
.zone.brake {
  fill: #1f6f7814;
}
.chosen {
  stroke: var(--resin);
  stroke-width: 2.4;
}
.line {
  stroke-width: 3;
  opacity: 0.35;
  stroke-linecap: round;
}
.feed {
  stroke: var(--resin);
}
.vent {
  stroke: var(--tide);
}
.race {
  stroke: var(--ember);
}
.feature {
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-dasharray: 12 3 2 3;
}
.guide {
  stroke: var(--tide);
  stroke-width: 1;
  stroke-dasharray: 3 3;
}
.draft {
  stroke: var(--resin);
  stroke-width: 2;
}
.dot {
  fill: var(--resin);
}
.caught {
  fill: none;
  stroke: var(--tide);
  stroke-width: 2;
}
text {
  font: 500 12px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
}
.name {
  fill: var(--quiet);
}
.live {
  font-size: 15px;
  font-weight: 600;
}
</style>
