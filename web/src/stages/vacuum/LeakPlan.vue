<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf } from '@wick/core/geometry/polygon';
import { bagOf } from '@wick/plan/bag/bag';
import { computed } from 'vue';
import TapeFigure from '../../board/TapeFigure.vue';
import { fitViewport, pathOf, toScreen } from '../../board/viewport.ts';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { WalkPlace } from './walk.ts';

/** The plan with the tape line, and the places of the walk under their numbers. */
const props = defineProps<{ places: readonly WalkPlace[]; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const size = { width: 470, height: 380 };
const tapeLine = computed(() => {
  try {
    return bagOf(job.laid, shop.shop).tapeLine;
  } catch {
    return [];
  }
});
const outline = computed(() => polygonOf(job.laid.part.outline));
const rings = computed(() => [outline.value, ...job.laid.part.holes.map((hole) => polygonOf(hole.outline))]);
const placed = computed(() =>
  props.places.flatMap((place) => (place.at ? [{ ...place, at: place.at }] : [])),
);
const view = computed(() =>
  fitViewport(boundsOf([...outline.value, ...tapeLine.value, ...placed.value.map(({ at }) => at)]), size, 46),
);
/** Numbers that would lie on one another stand a little apart. */
const spots = computed(() => {
  const taken: { x: number; y: number }[] = [];
  return placed.value.map((place) => {
    const at = toScreen(view.value, place.at);
    const spot = { ...at };
    for (let n = 0; n < 12 && taken.some((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < 19); n++) {
      spot.x = at.x + 20 * Math.cos((n * Math.PI) / 3) * (1 + Math.floor(n / 6));
      spot.y = at.y + 20 * Math.sin((n * Math.PI) / 3) * (1 + Math.floor(n / 6));
    }
    taken.push(spot);
    return { ...place, spot, foot: at };
  });
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="img"
    aria-label="Places of the leak walk on the plan"
    data-testid="leak-plan"
  >
    <TapeFigure :view="view" :rings="rings" :tape-line="tapeLine" :features="job.laid.part.features" />
    <path
      v-for="line in job.laid.lines.filter(({ kind }) => kind !== 'race')"
      :key="line.id"
      :d="pathOf(view, line.points, false)"
      :class="['line', line.kind]"
    />
    <g
      v-for="{ id, number, state, spot, foot } in spots"
      :key="id"
      :class="['spot', state ?? 'open', { here: id === selected }]"
      @click="emit('select', id)"
    >
      <line :x1="foot.x" :y1="foot.y" :x2="spot.x" :y2="spot.y" />
      <circle :cx="spot.x" :cy="spot.y" r="9.5" />
      <text :x="spot.x" :y="spot.y + 4" text-anchor="middle">{{ number }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
.line {
  fill: none;
  stroke-width: 2;
}
.line.feed {
  stroke: var(--resin);
}
.line.vent {
  stroke: var(--tide);
}
.spot {
  cursor: pointer;
}
.spot line {
  stroke: var(--quiet);
}
.spot circle {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.spot text {
  font: 600 11px var(--display);
  fill: var(--ink);
}
.spot.found circle {
  fill: var(--ember);
  stroke: var(--ember);
}
.spot.found text {
  fill: #fff;
}
.spot.sealed circle,
.spot.sound circle {
  fill: #dfe8de;
  stroke: var(--moss);
}
.spot.here circle {
  stroke-width: 3;
}
</style>
