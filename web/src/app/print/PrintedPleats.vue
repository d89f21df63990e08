<script setup lang="ts">
import type { Bag } from '@wick/plan/bag/bag';
import type { LaidJob } from '@wick/plan/job/laid';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { portsOf } from '@wick/plan/stack/regions';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { HEADING, MARGIN, type Paper } from './paper.ts';

/** The tape line with its pleats, to scale: one unit of the drawing is one millimetre of paper. */
const props = defineProps<{ job: LaidJob; bag: Bag; scale: number; paper: Paper }>();
const shop = useShopStore();
const BAR = 100;
/** mm of paper */
const TICK = 5;

const outline = computed(() => polygonOf(props.job.part.outline));
const box = computed(() => boundsOf([...outline.value, ...props.bag.tapeLine]));
const room = computed(() => ({
  width: props.paper.width - 2 * MARGIN,
  height: props.paper.height - 2 * MARGIN - HEADING,
}));
const factor = computed(() => 1e3 / props.scale);
const put = ({ x, y }: Point): Point => ({
  x:
    (room.value.width - (box.value.maxX - box.value.minX) * factor.value) / 2 +
    (x - box.value.minX) * factor.value,
  y:
    (room.value.height - (box.value.maxY - box.value.minY) * factor.value) / 2.4 +
    (box.value.maxY - y) * factor.value,
});
const pathOf = (points: readonly Point[], closed: boolean) =>
  points
    .map(put)
    .map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(2)} ${y.toFixed(2)}`)
    .join('') + (closed ? 'Z' : '');
/** Holes for hoses. */
const ports = computed(() => portsOf(props.job));
const middle = computed(() =>
  put({ x: (box.value.minX + box.value.maxX) / 2, y: (box.value.minY + box.value.maxY) / 2 }),
);
/** Outward from the middle of the sheet. */
const ticks = computed(() =>
  props.bag.pleats.map(({ place, height, name }, n) => {
    const at = put(place);
    const length = Math.hypot(at.x - middle.value.x, at.y - middle.value.y) || 1;
    const way = { x: (at.x - middle.value.x) / length, y: (at.y - middle.value.y) / length };
    return { key: n + 1, name, height, at, end: { x: at.x + TICK * way.x, y: at.y + TICK * way.y } };
  }),
);
</script>

<template>
  <svg
    :width="`${room.width}mm`"
    :height="`${room.height}mm`"
    :viewBox="`0 0 ${room.width} ${room.height}`"
    role="img"
    aria-label="Pleat plan to scale"
  >
    <path :d="pathOf(outline, true)" class="part" />
    <path
      v-if="bag.tapeLine.length > 0"
      :d="pathOf(bag.tapeLine, true)"
      class="tape"
      data-testid="printed-tape"
    />
    <path
      v-for="feature in job.part.features"
      :key="feature.id"
      :d="pathOf(feature.points, false)"
      class="feature"
    />
    <circle
      v-for="(port, n) in ports"
      :key="`port ${n}`"
      :cx="put(port).x"
      :cy="put(port).y"
      r="1.6"
      class="port"
    />
    <g v-for="tick in ticks" :key="tick.key" data-testid="printed-pleat">
      <line :x1="tick.at.x" :y1="tick.at.y" :x2="tick.end.x" :y2="tick.end.y" class="tick" />
      <text
        :x="tick.end.x + (tick.end.x < tick.at.x ? -1 : 1)"
        :y="tick.end.y + 1.2"
        :text-anchor="tick.end.x < tick.at.x ? 'end' : 'start'"
        class="strong"
      >
        {{ tick.key }}
      </text>
    </g>
    <g :transform="`translate(2 ${room.height - 10 - 4.2 * Math.max(0, ticks.length - 1)})`">
      <text v-if="ticks.length === 0">No pleats: none are needed on a flat part.</text>
      <text v-for="(tick, i) in ticks" :key="tick.key" :y="4.2 * i">
        <tspan class="strong">{{ tick.key }}</tspan>
        {{ tick.name }}: {{ shop.show(tick.height, 'length') }} high, takes
        {{ shop.show(2 * tick.height, 'length') }} of tape more
      </text>
    </g>
    <g :transform="`translate(${room.width - BAR - 4} ${room.height - 4})`">
      <path :d="`M0 -2V0H${BAR}V-2`" class="bar" />
      <text :x="BAR / 2" y="-1.6" text-anchor="middle">{{ BAR }} mm</text>
    </g>
  </svg>
</template>

<style scoped>
text {
  font: 3.2px var(--text);
}
.strong {
  font-weight: 700;
}
.part {
  fill: none;
  stroke: #000;
  stroke-width: 0.3;
}
.tape {
  fill: none;
  stroke: #777;
  stroke-width: 1;
}
.feature {
  fill: none;
  stroke: #000;
  stroke-width: 0.5;
  stroke-dasharray: 2 1;
}
.port {
  fill: none;
  stroke: #000;
  stroke-width: 0.4;
}
.tick {
  stroke: #000;
  stroke-width: 0.7;
}
.bar {
  fill: none;
  stroke: #000;
  stroke-width: 0.3;
}
</style>
