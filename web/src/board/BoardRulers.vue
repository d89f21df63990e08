<script setup lang="ts">
import type { Bounds } from '@wick/core/geometry/polygon';
import { fromUnit, toUnit } from '@wick/core/units/format';
import { computed } from 'vue';
import { useUnits } from '../ui/units.ts';
import { niceStep, toPlan, toScreen, type Viewport } from './viewport.ts';

const props = defineProps<{ view: Viewport; size: { width: number; height: number }; box: Bounds }>();
const units = useUnits();
const unit = computed(() => units.unit('length'));

/** Ticks at round numbers of the shop's unit, along the visible stretch. */
function ticks(from: number, to: number, pixels: number) {
  const [low, high] = [toUnit(from, 'length', unit.value), toUnit(to, 'length', unit.value)];
  const step = niceStep(high - low, Math.max(2, pixels / 110));
  const list: { at: number; label: string }[] = [];
  for (let i = Math.ceil(low / step); i * step <= high; i++) {
    const value = i * step;
    list.push({ at: fromUnit(value, 'length', unit.value), label: String(Number(value.toPrecision(6))) });
  }
  return list;
}
const corners = computed(
  () =>
    [
      toPlan(props.view, { x: 26, y: props.size.height - 8 }),
      toPlan(props.view, { x: props.size.width - 16, y: 26 }),
    ] as const,
);
const across = computed(() => ticks(corners.value[0].x, corners.value[1].x, props.size.width));
const up = computed(() => ticks(corners.value[0].y, corners.value[1].y, props.size.height));
const xOf = (x: number) => toScreen(props.view, { x, y: 0 }).x;
const yOf = (y: number) => toScreen(props.view, { x: 0, y }).y;
</script>

<template>
  <g class="rulers" aria-hidden="true">
    <g v-for="tick in across" :key="`x${tick.at}`" :transform="`translate(${xOf(tick.at)} 0)`">
      <line y1="16" y2="22" />
      <text y="12" text-anchor="middle">{{ tick.label }}</text>
    </g>
    <text x="0" y="12">{{ unit }}</text>
    <g v-for="tick in up" :key="`y${tick.at}`" :transform="`translate(0 ${yOf(tick.at)})`">
      <line x1="0" x2="6" />
      <text x="9" y="4">{{ tick.label }}</text>
    </g>
  </g>
</template>

<style scoped>
line {
  stroke: #a59d8b;
}
text {
  font: 500 11px var(--display);
  fill: #7a7365;
}
</style>
