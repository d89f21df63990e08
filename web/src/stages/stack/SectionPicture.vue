<script setup lang="ts">
import type { EdgeSection, SectionLayer } from '@wick/plan/stack/section';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import type { DrawnSection } from './section-picture.ts';

/** A section within a drawing: mould, plies, every layer with its name, a scale. */
const props = defineProps<{ section: EdgeSection; picture: DrawnSection; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const shop = useShopStore();
const over = computed(() => props.picture.layers.filter(({ label }) => label.isOver));
const wordOf = ({ kind, word }: SectionLayer) =>
  kind === 'lines' && props.section.line ? props.section.line.name : word;
const long = (at: number) => shop.show(Math.abs(at), 'length');
</script>

<template>
  <g>
    <path v-if="section.step" class="mould" :d="picture.stepped" />
    <rect v-else class="mould" x="0" :y="picture.mould" :width="picture.x(section.flange ?? 9)" height="10" />
    <text v-if="section.step" class="climb" :x="picture.x(0) + 14" :y="picture.mould - 8">
      {{ section.step.name }}: climbs {{ long(section.step.height) }}
    </text>
    <path class="part" :d="picture.part" />
    <text class="on-part" x="8" :y="picture.mould - 18">plies</text>
    <g v-for="tick in section.step ? [] : picture.ticks" :key="tick" class="tick">
      <line :x1="picture.x(tick)" :x2="picture.x(tick)" :y1="picture.mould + 10" :y2="picture.mould + 15" />
      <text :x="picture.x(tick)" :y="picture.mould + 28">
        {{ Math.abs(tick) < 1e-9 ? 'edge' : shop.show(Math.abs(tick), 'length').replace(/ .*/, '') }}
      </text>
    </g>
    <line class="edge" :x1="picture.x(0)" :x2="picture.x(0)" y1="14" :y2="picture.mould + 10" />
    <g
      v-for="layer in picture.layers"
      :key="layer.id"
      :class="['layer', layer.kind, { selected: layer.id === selected, open: layer.name === null }]"
      @pointerdown="emit('select', layer.id)"
    >
      <path :d="layer.path" />
      <text v-if="!layer.label.isOver" :x="layer.label.x" :y="layer.label.y + 4">{{ wordOf(layer) }}</text>
    </g>
    <g v-for="(layer, n) in over" :key="`name ${layer.id}`" class="name">
      <line :x1="layer.label.x" :x2="layer.label.x" :y1="layer.label.y" :y2="28 + 16 * (n % 2)" />
      <text :x="layer.label.x" :y="24 + 16 * (n % 2)">{{ wordOf(layer) }}</text>
    </g>
  </g>
</template>

<style scoped>
.mould {
  fill: #6d7477;
}
.part {
  fill: #e8d9b3;
  stroke: var(--ink);
}
.edge {
  stroke: var(--ink);
  stroke-dasharray: 2 4;
  opacity: 0.5;
}
.tick line {
  stroke: var(--quiet);
}
.tick text,
.climb,
.on-part {
  font: 400 12px var(--text);
  fill: var(--quiet);
}
.tick text {
  text-anchor: middle;
}
.layer path {
  fill: #f4efe2;
  stroke: var(--ink);
  stroke-width: 0.8;
}
.layer text {
  font: 500 12px var(--display);
  fill: var(--ink);
  pointer-events: none;
}
.layer.flowMesh path {
  fill: #b9d0cf;
}
.layer.peelPly path {
  fill: #fbfaf6;
  stroke-dasharray: 5 2;
}
.layer.perforatedFilm path,
.layer.releaseFilm path {
  fill: #e4d6d2;
}
.layer.breather path,
.layer.bleeder path {
  fill: #e6e2d6;
}
.layer.lines path {
  fill: #f1c885;
}
.layer.sealantTape path,
.layer.doubleTape path,
.layer.flashTape path {
  fill: #a99f88;
}
.layer.bag path {
  fill: #d9e4e5;
}
.layer.open path {
  stroke: var(--ember);
  stroke-dasharray: 2 3;
}
.layer.selected path {
  stroke-width: 2.2;
}
.name line {
  stroke: var(--quiet);
  stroke-width: 0.8;
}
.name text {
  font: 500 12px var(--display);
  fill: var(--ink);
  text-anchor: middle;
}
</style>
