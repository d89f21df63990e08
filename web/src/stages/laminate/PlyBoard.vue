<script setup lang="ts">
import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { plyCutsOf } from '@wick/plan/laminate/ply-book';
import { computed } from 'vue';
import { fitViewport, pathOf, toScreen } from '../../board/viewport.ts';

/** Where the chosen ply lies on the plan, and which way its fibres run there. */
const props = defineProps<{ book: Book; chosen: number | null }>();
const job = useSession();
const size = { width: 320, height: 170 };

const view = computed(() => fitViewport(boundsOf(polygonOf(job.laid.part.outline)), size, 10));
const part = computed(() =>
  [job.laid.part.outline, ...job.laid.part.holes.map((hole) => hole.outline)]
    .map((ring) => pathOf(view.value, polygonOf(ring), true))
    .join(''),
);
const ply = computed(() =>
  props.chosen === null ? null : (props.book.laminate.plies[props.chosen] ?? null),
);
const region = computed(() => {
  if (!ply.value) return '';
  try {
    const cut = plyCutsOf(job.laid).find(({ plyId }) => plyId === ply.value!.id);
    return (cut?.region ?? [])
      .flatMap(({ outline, holes }) => [outline, ...holes])
      .map((ring) => pathOf(view.value, polygonOf(ring), true))
      .join('');
  } catch {
    return '';
  }
});
const arrow = computed(() => {
  if (!ply.value) return null;
  const box = boundsOf(polygonOf(job.laid.part.outline));
  const middle: Point = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  const at = toScreen(view.value, middle);
  return { ...at, turn: (-ply.value.angle * 180) / Math.PI };
});
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${size.width} ${size.height}`"
      role="img"
      :aria-label="ply ? `Where ply ${chosen! + 1} lies` : 'Plan'"
    >
      <path :d="part" class="part" />
      <path v-if="region" :d="region" class="ply" />
      <g v-if="arrow" :transform="`translate(${arrow.x} ${arrow.y}) rotate(${arrow.turn})`" class="arrow">
        <path d="M -42 0 H 36 M 36 0 L 25 -6 M 36 0 L 25 6" />
      </g>
    </svg>
    <figcaption class="quiet">
      {{
        ply
          ? `Ply ${chosen! + 1}: where it lies, its 0 direction as the arrow.`
          : 'Choose a ply to see where it lies and which way it runs.'
      }}
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 8px 0 0;
}
svg {
  width: 100%;
}
.part {
  fill: #fbfaf6;
  fill-rule: evenodd;
  stroke: var(--ink);
}
.ply {
  fill: #e0c07a99;
  fill-rule: evenodd;
  stroke: var(--resin-ink);
}
.arrow path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
