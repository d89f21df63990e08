<script setup lang="ts">
import { runConditionsOf } from '@wick/plan/resin/run';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf } from '@wick/core/geometry/polygon';
import { createIsochrones } from '@wick/core/flow/isochrones';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { clockOf } from '@wick/core/verdict/verdict';
import { timelineOf } from '@wick/plan/forecast/assess';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { bandsOf } from '../../board/bands.ts';
import { fitViewport, pathOf, pathOfRings, toScreen } from '../../board/viewport.ts';

/** A layout in small: part, front on the clock it shares with its neighbours, feeds and vents. */
const props = defineProps<{
  job: LaidJob;
  flow: FlowForecast | null;
  /** Last moment that is coloured, s from first mix: the same for all that stand side by side. */
  endTime: number;
  minute: number | null;
}>();
const shop = useShopStore();
const root = ref<SVGSVGElement | null>(null);
const size = ref({ width: 260, height: 130 });

const rings = computed(() =>
  [props.job.part.outline, ...props.job.part.holes.map(({ outline }) => outline)].map((ring) =>
    polygonOf(ring),
  ),
);
const view = computed(() => fitViewport(boundsOf(rings.value[0]!), size.value, 10));
const part = computed(() => rings.value.map((ring) => pathOf(view.value, ring, true)).join(''));
const front = computed(() => {
  const run = runConditionsOf(props.job, shop.shop);
  if (!props.flow || !run) return null;
  const isochrones = createIsochrones(props.flow.mesh, props.flow.arrival);
  const timeline = timelineOf(props.flow, clockOf(run), run.openTime);
  const { mesh, arrival } = props.flow;
  const request = { mesh, arrival, isochrones, openTime: run.openTime, endTime: props.endTime };
  return { bands: bandsOf({ ...request, runTimeAt: timeline.runTime }), isochrones, timeline };
});
const ahead = computed(() => {
  if (props.minute === null || !front.value) return null;
  const wet = pathOfRings(
    view.value,
    front.value.isochrones.wetBy(front.value.timeline.runTime(props.minute)),
  );
  return { shade: part.value + wet, wet };
});
const drawn = computed(() =>
  props.job.lines
    .filter(({ kind }) => kind !== 'race')
    .map(({ id, kind, points, startsOpen }) => ({
      id,
      kind,
      waits: !startsOpen,
      path: points.length > 1 ? pathOf(view.value, points, false) : null,
      at: toScreen(view.value, points[0]!),
    })),
);
const clip = `picture-${Math.random().toString(36).slice(2)}`;

const observer = new ResizeObserver(([entry]) => {
  if (entry && entry.contentRect.width > 0)
    size.value = { width: entry.contentRect.width, height: entry.contentRect.height };
});
onMounted(() => observer.observe(root.value!));
onBeforeUnmount(() => observer.disconnect());
</script>

<template>
  <svg ref="root" class="picture" aria-hidden="true">
    <clipPath :id="clip"><path :d="part" clip-rule="evenodd" /></clipPath>
    <path :d="part" fill="#fbfaf6" fill-rule="evenodd" />
    <g :clip-path="`url(#${clip})`">
      <rect v-if="front" width="100%" height="100%" fill="url(#picture-hatch)" />
      <path
        v-for="band in front?.bands ?? []"
        :key="band.until"
        :d="pathOfRings(view, band.rings)"
        :fill="band.colour"
        fill-rule="evenodd"
        stroke="#fbfaf6"
        stroke-width="0.5"
      />
      <path v-if="ahead" :d="ahead.shade" fill="#fbfaf6" fill-rule="evenodd" opacity="0.8" />
      <path v-if="ahead" :d="ahead.wet" fill="none" stroke="var(--ink)" stroke-width="1.4" />
    </g>
    <path :d="part" fill="none" stroke="var(--ink)" />
    <g v-for="line in drawn" :key="line.id" :class="['line', line.kind, { waits: line.waits }]">
      <path v-if="line.path" :d="line.path" />
      <circle v-else :cx="line.at.x" :cy="line.at.y" r="4" />
    </g>
    <defs>
      <pattern
        id="picture-hatch"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="6" height="6" fill="#fbfaf6" />
        <line x1="0" y1="0" x2="0" y2="6" stroke="#b3261e" stroke-width="1.4" opacity="0.5" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.picture {
  width: 100%;
  height: 100%;
  min-height: 90px;
  display: block;
}
.line {
  --colour: var(--resin);
}
.line.vent {
  --colour: var(--tide);
}
.line path {
  fill: none;
  stroke: var(--colour);
  stroke-width: 3.2;
  stroke-linecap: round;
}
.line.waits path {
  stroke-dasharray: 5 5;
}
.line circle {
  fill: var(--colour);
  stroke: #fbfaf6;
}
</style>
