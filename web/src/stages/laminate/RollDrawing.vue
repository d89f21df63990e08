<script setup lang="ts">
import type { RollCut } from '@wick/plan/laminate/cut-sheet';
import type { PieceShape } from '@wick/core/kit/nest';
import type { Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import { niceStep } from '../../board/viewport.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The pieces of one cloth as they lie on its roll, rolled out to the right; a long roll goes on in the next row. */
const props = defineProps<{ roll: RollCut }>();
const shop = useShopStore();
const ROW = 900;
const TALL = 116;
const MOST_ROWS = 12;
const PIXEL = 1;
/** A smaller piece has no room for its label, px. */
const LABELLED = 14;
const GAP = 20;

/** px to the metre: as tall as fits, unless so many rows of it are not enough. */
const scale = computed(() =>
  Math.min(TALL / props.roll.width, (MOST_ROWS * ROW) / Math.max(props.roll.nest.length, 0.1)),
);
const rowLength = computed(() => ROW / scale.value);
const rowCount = computed(() =>
  Math.min(MOST_ROWS, Math.max(1, Math.ceil(props.roll.nest.length / rowLength.value - 1e-9))),
);
const tall = computed(() => props.roll.width * scale.value);

/** From the lower left corner, y downwards; of points that fall on one pixel the first. */
function pathOf({ outline, holes }: PieceShape): string {
  const ring = (points: readonly Point[]) => {
    const put = points.map(({ x, y }) => ({ x: x * scale.value, y: -y * scale.value }));
    let last = put[0]!;
    const drawn = put.filter((p, i) => {
      if (i > 0 && Math.hypot(p.x - last.x, p.y - last.y) < PIXEL) return false;
      last = p;
      return true;
    });
    return `M${drawn.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;
  };
  return [outline, ...holes].map(ring).join('');
}

const drawn = computed(() => {
  const shapes = new Map<PieceShape, string>();
  const pieces = props.roll.nest.placed.map(({ piece, shape, at }) => {
    if (!shapes.has(shape)) shapes.set(shape, pathOf(shape));
    const [x, y] = [at.x * scale.value, tall.value - at.y * scale.value];
    const [length, width] = [piece.length * scale.value, piece.width * scale.value];
    return { label: piece.label, path: shapes.get(shape)!, x, y, length, width };
  });
  return Array.from({ length: rowCount.value }, (_, row) =>
    pieces.filter(({ x, length }) => x < (row + 1) * ROW && x + length > row * ROW),
  );
});
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
        <g v-for="piece in drawn[row - 1]" :key="piece.label">
          <path :d="piece.path" :transform="`translate(${piece.x} ${piece.y})`" />
          <text
            v-if="Math.min(piece.length, piece.width) > LABELLED"
            :x="piece.x + piece.length / 2"
            :y="piece.y - piece.width / 2 + 4"
          >
            {{ piece.label }}
          </text>
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
  flex: none;
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
