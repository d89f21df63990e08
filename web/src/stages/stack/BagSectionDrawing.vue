<script setup lang="ts">
import { pointsAlong } from '@wick/core/bag/section';
import type { BagSection } from '@wick/plan/bag/sections';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The mould line of a section with the film over it; to scale both ways. */
const props = defineProps<{ section: BagSection }>();
const shop = useShopStore();
const WIDTH = 440;
const ROOM = 26;

const picture = computed(() => {
  const { line, plan } = props.section;
  if (!line) return null;
  const points = pointsAlong(line);
  const heights = points.map(({ z }) => z);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const scale = (WIDTH - 2 * ROOM) / plan;
  const height = Math.max(90, (high - low) * scale + 2 * ROOM);
  const place = ({ x, z }: { x: number; z: number }, lift: number) =>
    `${(ROOM + x * scale).toFixed(1)} ${(height - ROOM - (z - low) * scale - lift).toFixed(1)}`;
  const path = (lift: number) => `M${points.map((p) => place(p, lift)).join('L')}`;
  return { height, mould: path(0), film: path(7) };
});
const over = computed(() => props.section.developed - props.section.plan);
</script>

<template>
  <p v-if="section.problem" class="ember">{{ section.problem }}</p>
  <svg
    v-else-if="picture"
    :viewBox="`0 0 ${WIDTH} ${picture.height}`"
    role="img"
    :aria-label="`Section: ${section.name}`"
  >
    <path :d="picture.film" class="film" />
    <path :d="picture.mould" class="mould" />
  </svg>
  <div class="row">
    <span>On the plan</span><span class="number">{{ shop.show(section.plan, 'length') }}</span>
  </div>
  <div class="row">
    <span>Along the mould</span><span class="number">{{ shop.show(section.developed, 'length') }}</span>
  </div>
  <div class="row">
    <span>More film than the plan</span><span class="number">{{ shop.show(over, 'length') }}</span>
  </div>
  <p class="quiet">
    Rises are drawn as turned up towards the nearer edge; the film it takes is the same either way.
  </p>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
path {
  fill: none;
  stroke-width: 2;
}
.mould {
  stroke: #6d7477;
  stroke-width: 4;
}
.film {
  stroke: var(--tide);
}
p {
  font-size: 12px;
  margin: 6px 0 0;
}
</style>
