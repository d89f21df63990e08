<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { contactOf } from '@wick/plan/infusion/infusion';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import type { fuseScale } from '../../ui/fuse/fuse-scale.ts';
import { useTicking } from '../../ui/use-ticking.ts';

/** How far the fuse has burnt in the run that is looked at, since resin and hardener met; nothing where nothing burns. */
const props = defineProps<{ scale: ReturnType<typeof fuseScale>; top: number }>();
const run = useRun();
const now = useTicking(run.now);
const met = computed(() => (run.run && !run.run.endedAt ? contactOf(run.state.entries) : null));
const burnt = computed(() => {
  const since = met.value === null ? -1 : (now.value - met.value) / 1000;
  return since >= 0 && since <= props.scale.end ? since : null;
});
</script>

<template>
  <g v-if="burnt !== null" class="burnt" data-testid="burnt">
    <rect :x="scale.xOf(0)" :y="top" :width="scale.xOf(burnt) - scale.xOf(0)" height="17" />
    <line :x1="scale.xOf(burnt)" :x2="scale.xOf(burnt)" :y1="top - 8" :y2="top + 22" />
    <text :x="scale.xOf(burnt) + 5" :y="top - 2">now {{ formatClock(burnt) }}</text>
  </g>
</template>

<style scoped>
.burnt rect {
  fill: var(--ink);
  fill-opacity: 0.55;
}
.burnt line {
  stroke: var(--ember);
  stroke-width: 3;
}
.burnt text {
  font: 600 13px var(--display);
  fill: var(--ember);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
</style>
