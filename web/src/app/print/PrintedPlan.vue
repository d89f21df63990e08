<script setup lang="ts">
import { edgeLength, edgeMiddle, polygonOf, ringBounds, type Corner } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { DIMENSION_ROOM, HEADING, MARGIN, type Paper } from './paper.ts';

/** The plan to scale: one unit of the drawing is one millimetre of paper. */
const props = defineProps<{ job: LaidJob; scale: number; paper: Paper }>();
const shop = useShopStore();
const FEW = 14;

const box = computed(() => ringBounds(props.job.part.outline));
const room = computed(() => ({
  width: props.paper.width - 2 * MARGIN,
  height: props.paper.height - 2 * MARGIN - HEADING,
}));
const factor = computed(() => 1e3 / props.scale);
/** The plan stands in the middle of the sheet. */
const corner = computed(() => ({
  x: Math.max(DIMENSION_ROOM, (room.value.width - (box.value.maxX - box.value.minX) * factor.value) / 2),
  y: Math.max(DIMENSION_ROOM, (room.value.height - (box.value.maxY - box.value.minY) * factor.value) / 2.4),
}));
const put = ({ x, y }: Point): Point => ({
  x: corner.value.x + (x - box.value.minX) * factor.value,
  y: corner.value.y + (box.value.maxY - y) * factor.value,
});
const pathOf = (points: readonly Point[], closed: boolean) =>
  points
    .map(put)
    .map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(2)} ${y.toFixed(2)}`)
    .join('') + (closed ? 'Z' : '');
const ringPath = (ring: readonly Corner[]) => pathOf(polygonOf(ring), true);

const part = computed(() =>
  [props.job.part.outline, ...props.job.part.holes.map(({ outline }) => outline)].map(ringPath).join(''),
);
const low = computed(() => put({ x: box.value.minX, y: box.value.minY }));
const high = computed(() => put({ x: box.value.maxX, y: box.value.maxY }));
const edges = computed(() => {
  const ring = props.job.part.outline;
  if (ring.length > FEW) return [];
  return ring.map((a, i) => {
    const b = ring[(i + 1) % ring.length]!;
    return { at: put(edgeMiddle(a, b)), text: shop.show(edgeLength(a, b), 'length') };
  });
});
/** Inner things by the place of their lower left corner from that of the part, and their size. */
const inner = computed(() =>
  [
    ...props.job.zones.map((zone) => ({ name: zone.name, ring: zone.outline })),
    ...props.job.part.holes.map(({ outline }, i) => ({ name: `Hole ${i + 1}`, ring: outline })),
  ].map(({ name, ring }, i) => {
    const { minX, minY, maxX, maxY } = ringBounds(ring);
    const show = (value: number) => shop.show(value, 'length');
    return {
      path: ringPath(ring),
      at: put({ x: (minX + maxX) / 2, y: (minY + maxY) / 2 }),
      key: String.fromCharCode(65 + (i % 26)),
      name,
      words: `${show(maxX - minX)} × ${show(maxY - minY)} at ${show(minX - box.value.minX)}, ${show(minY - box.value.minY)}`,
    };
  }),
);
const BAR = 100;
</script>

<template>
  <svg
    :width="`${room.width}mm`"
    :height="`${room.height}mm`"
    :viewBox="`0 0 ${room.width} ${room.height}`"
    role="img"
    aria-label="Plan to scale with dimensions"
  >
    <path :d="part" class="part" data-testid="printed-part" />
    <path v-for="(item, i) in inner" :key="`ring${i}`" :d="item.path" class="zone" />
    <path
      v-for="feature in job.part.features"
      :key="feature.id"
      :d="pathOf(feature.points, false)"
      class="feature"
    />
    <path
      v-for="line in job.lines"
      :key="line.id"
      :d="pathOf(line.points, false)"
      :class="['line', line.kind]"
    />
    <g v-for="line in job.lines" :key="`name${line.id}`">
      <text :x="put(line.points[0]!).x + 1.5" :y="put(line.points[0]!).y - 1.5">{{ line.name }}</text>
    </g>
    <g v-for="mark in job.marks" :key="mark.id" :transform="`translate(${put(mark).x} ${put(mark).y})`">
      <path d="M -2 0 H 2 M 0 -2 V 2" class="mark" />
      <text x="2.5" y="-1">{{ mark.name }}</text>
    </g>
    <text v-for="item in inner" :key="item.key" :x="item.at.x" :y="item.at.y + 1.4" class="middle strong">
      {{ item.key }}
    </text>
    <g :transform="`translate(2 ${room.height - 4 - 4.2 * (inner.length - 1)})`">
      <text v-for="(item, i) in inner" :key="item.key" :y="4.2 * i">
        <tspan class="strong">{{ item.key }}</tspan>
        {{ item.name }}: {{ item.words }}
      </text>
    </g>
    <text
      v-for="(edge, i) in edges"
      :key="`edge${i}`"
      :x="edge.at.x"
      :y="edge.at.y - 1.2"
      class="middle small"
    >
      {{ edge.text }}
    </text>
    <g class="dimension">
      <path
        :d="`M${low.x} ${low.y + 2}V${low.y + 14}M${high.x} ${low.y + 2}V${low.y + 14}M${low.x} ${low.y + 11}H${high.x}`"
      />
      <path
        :d="`M${low.x - 2} ${low.y}H${low.x - 14}M${low.x - 2} ${high.y}H${low.x - 14}M${low.x - 11} ${low.y}V${high.y}`"
      />
      <text :x="(low.x + high.x) / 2" :y="low.y + 9.6" class="middle strong">
        {{ shop.show(box.maxX - box.minX, 'length') }}
      </text>
      <text
        :transform="`translate(${low.x - 12.4} ${(low.y + high.y) / 2}) rotate(-90)`"
        class="middle strong"
      >
        {{ shop.show(box.maxY - box.minY, 'length') }}
      </text>
    </g>
    <g :transform="`translate(${room.width - BAR - 4} ${room.height - 5})`" class="dimension">
      <path :d="`M0 -2V2M${BAR} -2V2M0 0H${BAR}`" />
      <text :x="BAR / 2" y="-1.2" class="middle small">this bar is 100 mm on paper</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
path {
  fill: none;
  stroke: #1e2a2f;
  stroke-width: 0.3;
}
.part {
  stroke-width: 0.6;
  fill: #faf5e6;
  fill-rule: evenodd;
}
.zone {
  stroke-dasharray: 2 1.4;
}
.feature {
  stroke-dasharray: 5 1 1 1;
}
.line {
  stroke-width: 1;
  stroke: #c77700;
  stroke-linecap: round;
}
.vent {
  stroke: #1f6f78;
}
.race,
.mark {
  stroke: #b3261e;
}
text {
  font: 500 3.2px var(--display);
  fill: #1e2a2f;
}
.middle {
  text-anchor: middle;
}
.small {
  font-size: 2.8px;
}
.strong {
  font-size: 3.8px;
  font-weight: 600;
}
</style>
