<script setup lang="ts">
import type { RollCut } from '@wick/plan/laminate/cut-sheet';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import { niceStep } from '../../board/viewport.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The pieces of one cloth as they lie on its roll, rolled out to the right; a long roll goes on in the next row. */
const props = defineProps<{ roll: RollCut }>();
const shop = useShopStore();
const ROW = 900;
const TALL = 116;
const GAP = 20;

const scale = computed(() => Math.min(TALL / props.roll.width, ROW / Math.max(props.roll.nest.length, 0.1)));
const rowLength = computed(() => ROW / scale.value);
const rowCount = computed(() =>
  Math.min(12, Math.max(1, Math.ceil(props.roll.nest.length / rowLength.value - 1e-9))),
);
const tall = computed(() => props.roll.width * scale.value);
const put = ({ x, y }: Point) =>
  `${(x * scale.value).toFixed(1)} ${((props.roll.width - y) * scale.value).toFixed(1)}`;
const pieces = computed(() =>
  props.roll.nest.placed.map(({ piece, outline, holes }) => {
    const box = boundsOf(outline);
    return {
      label: piece.label,
      path: [outline, ...holes].map((ring) => `M${ring.map(put).join('L')}Z`).join(''),
      x: ((box.minX + box.maxX) / 2) * scale.value,
      y: (props.roll.width - (box.minY + box.maxY) / 2) * scale.value,
    };
  }),
);
const marks = computed(() => {
  const step = niceStep(rowLength.value, 9);
  return Array.from({ length: Math.floor(props.roll.nest.length / step) + 1 }, (_, i) => ({
    x: i * step * scale.value,
    label: shop.showLong(i * step),
  }));
});
</script>

<template>
  <svg
    :viewBox="`-1 -1 ${ROW + 2} ${rowCount * (tall + GAP) + 2}`"
    role="img"
    :aria-label="`Pieces of ${roll.name} on the roll`"
  >
    <defs>
      <clipPath id="roll-row"><rect :width="ROW + 1" :height="tall + GAP" /></clipPath>
    </defs>
    <g
      v-for="row in rowCount"
      :key="row"
      :transform="`translate(0 ${(row - 1) * (tall + GAP)})`"
      clip-path="url(#roll-row)"
    >
      <g :transform="`translate(${-(row - 1) * ROW} 0)`">
        <rect :width="roll.nest.length * scale" :height="tall" class="cloth" />
        <g v-for="piece in pieces" :key="piece.label">
          <path :d="piece.path" />
          <text :x="piece.x" :y="piece.y + 4">{{ piece.label }}</text>
        </g>
        <g v-for="mark in marks" :key="mark.label" class="mark" :transform="`translate(${mark.x} ${tall})`">
          <line y2="4" />
          <text y="14">{{ mark.label }}</text>
        </g>
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
.cloth {
  fill: var(--sheet);
  stroke: #b9b19d;
}
path {
  fill: #ead9ae;
  fill-rule: evenodd;
  stroke: var(--ink);
  stroke-width: 0.8;
}
text {
  font: 600 13px var(--display);
  text-anchor: middle;
  fill: var(--ink);
}
.mark text {
  font-size: 11px;
  font-weight: 500;
  fill: var(--quiet);
  text-anchor: start;
}
.mark line {
  stroke: var(--quiet);
}
</style>
