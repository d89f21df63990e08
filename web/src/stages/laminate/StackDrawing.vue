<script setup lang="ts">
import { underCore, type Book } from '@wick/plan/laminate/books';
import { materialOf } from '@wick/plan/job/material-of';
import { laidOn } from '@wick/plan/stack/laid-on';
import type { Stack } from '@wick/core/laminate/stack';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** Section through the stack, to scale in thickness; the core is cut short where it would dwarf the plies. */
const props = defineProps<{ job: LaidJob; book: Book; stack: Stack; chosen: number | null }>();
const shop = useShopStore();
const HEIGHT = 300;
/** Height of a layer where there are few. */
const MOST_LAYER = 64;
const WIDTH = 260;
/** Steps of drawn-in plies are shown at this many units each, not to scale. */
const STEP = 9;

interface Layer {
  label: string;
  angle: number | null;
  thickness: number;
  fill: string;
  isCut: boolean;
  inset: number;
  index: number | null;
}
const layers = computed<Layer[]>(() => {
  const { laminate } = props.book;
  const core = materialOf(props.job, laminate.coreId, 'core');
  const { flowMeshes = [] } = laidOn(props.job, props.book.zoneId);
  const steps = [...new Set(laminate.plies.map((ply) => ply.inset))].sort((a, b) => a - b);
  const plies = laminate.plies.map((ply, index) => ({
    label: `${index + 1}  ${materialOf(props.job, ply.materialId, 'fabric')?.name ?? ''}  ${Math.round((ply.angle * 180) / Math.PI)}°`,
    angle: ply.angle,
    thickness: props.stack.plies[index]?.thickness ?? 0,
    fill: Math.abs(Math.sin(2 * ply.angle)) > 0.5 ? '#d8c394' : '#e8d9b3',
    isCut: false,
    inset: Math.min(8, steps.indexOf(ply.inset)) * STEP,
    index,
  }));
  const under = core ? underCore(props.job, props.book, shop.shop) : plies.length;
  const plain = { angle: null, inset: 0, index: null };
  return [
    ...plies.slice(0, under),
    ...(core
      ? [
          {
            ...plain,
            label: core.name,
            thickness: Math.min(core.thickness, props.stack.laminateThickness),
            fill: '#f0ece0',
            isCut: core.thickness > props.stack.laminateThickness,
          },
        ]
      : []),
    ...plies.slice(under),
    ...flowMeshes.map((mesh) => ({
      ...plain,
      label: `${mesh.name}, taken off`,
      thickness: mesh.thickness,
      fill: '#b9d0cf',
      isCut: false,
    })),
  ];
});
/** Of the whole drawing; a thin stack is drawn low rather than a ply as a wall. */
const height = computed(() => Math.min(HEIGHT, MOST_LAYER * layers.value.length));
const drawn = computed(() => {
  const total = layers.value.reduce((sum, layer) => sum + layer.thickness, 0);
  let y = height.value;
  return layers.value.map((layer) => {
    const own = (layer.thickness / total) * height.value;
    y -= own;
    return { ...layer, y, height: own };
  });
});
const face = computed(() => props.job.showFace);
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 -16 ${WIDTH} ${height + 40}`"
      role="img"
      :aria-label="`Section through ${book.name}, thickness to scale`"
    >
      <text v-if="face === 'bag'" x="0" y="-4" class="face">▲ show face</text>
      <g v-for="(layer, i) in drawn" :key="i">
        <rect
          x="0"
          :y="layer.y"
          :width="WIDTH - 10 - layer.inset"
          :height="layer.height"
          :fill="layer.fill"
          :class="{ chosen: layer.index !== null && layer.index === chosen }"
        />
        <text v-if="layer.height > 11" x="8" :y="layer.y + layer.height / 2 + 4">
          {{ layer.label }}
          <tspan v-if="layer.isCut">(drawn thinner)</tspan>
        </text>
        <g
          v-if="layer.angle !== null && layer.height > 11"
          :transform="`translate(${WIDTH - 30 - layer.inset} ${layer.y + layer.height / 2}) rotate(${(-layer.angle * 180) / Math.PI})`"
        >
          <line
            :x1="-Math.min(9, layer.height / 2)"
            :x2="Math.min(9, layer.height / 2)"
            y1="0"
            y2="0"
            class="fibre"
          />
        </g>
      </g>
      <rect x="0" :y="height" :width="WIDTH - 10" height="6" class="mould" />
      <text x="0" :y="height + 20">mould · {{ shop.show(stack.thickness, 'thickness') }} after demould</text>
      <text v-if="face === 'mould'" :x="WIDTH - 10" :y="height + 20" class="face end">▼ show face</text>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 340px;
}
rect {
  stroke: #8b8474;
  stroke-width: 0.7;
}
.chosen {
  stroke: var(--resin);
  stroke-width: 2.4;
}
.mould {
  fill: #1e2a2f;
  stroke: none;
}
.fibre {
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font: 500 12px var(--display);
  fill: var(--ink);
}
.face {
  fill: var(--resin-ink);
}
.end {
  text-anchor: end;
}
</style>
