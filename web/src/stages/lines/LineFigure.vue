<script setup lang="ts">
import type { JobLine } from '@wick/contract/job/job';
import { computed } from 'vue';
import type { Label } from './use-labels.ts';
import { MOST_HANDLES } from './line-scene.ts';
import { pathOf, toScreen, type Viewport } from '../../board/viewport.ts';

/** A feed swells where resin enters; a vent has open ends. */
const props = defineProps<{
  line: JobLine;
  view: Viewport;
  selected: boolean;
  opening?: number;
  label?: Label;
}>();
const emit = defineEmits<{ focus: [] }>();

const ends = computed(() => props.line.points.map((p) => toScreen(props.view, p)));
const middle = computed(() => {
  const points = ends.value;
  const half = Math.floor((points.length - 1) / 2);
  const [a, b] = [points[half]!, points[Math.min(half + 1, points.length - 1)]!];
  return points.length % 2 === 0 || points.length === 1
    ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
    : points[(points.length - 1) / 2]!;
});
const path = computed(() => pathOf(props.view, props.line.points, false));
/** Only a line of few points shows handles; a traced edge moves as a whole. */
const handles = computed(() => (props.line.points.length <= MOST_HANDLES ? ends.value : []));
</script>

<template>
  <g
    :class="['line', line.kind, { selected, waits: (opening ?? (line.startsOpen ? 1 : 0)) === 0 }]"
    :data-line="line.id"
    tabindex="0"
    role="button"
    :aria-label="line.name"
    @focus="emit('focus')"
  >
    <path v-if="line.points.length > 1" :d="path" class="reach" />
    <path v-if="line.points.length > 1" :d="path" class="body" />
    <circle
      v-if="line.kind === 'feed' || line.points.length === 1"
      :cx="middle.x"
      :cy="middle.y"
      :r="line.kind === 'feed' ? 8 : 6"
      class="swell"
    />
    <circle v-for="(end, i) in handles" :key="i" :cx="end.x" :cy="end.y" r="5" class="end" />
    <text v-if="label" :x="label.x" :y="label.y" :text-anchor="label.anchor">{{ label.words }}</text>
  </g>
</template>

<style scoped>
.line {
  cursor: move;
  --colour: var(--resin);
}
.line.vent {
  --colour: var(--tide);
}
.line.race {
  --colour: var(--ember);
}
.race .body {
  stroke-dasharray: 2 6;
}
.race text {
  fill: var(--ember);
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 20;
}
.body {
  fill: none;
  stroke: var(--colour);
  stroke-width: 5;
  stroke-linecap: round;
}
.waits .body {
  stroke-dasharray: 9 7;
}
.selected .body {
  stroke-width: 7;
}
.swell {
  fill: var(--colour);
  stroke: #fbfaf6;
  stroke-width: 2;
}
.end {
  fill: #fbfaf6;
  stroke: var(--colour);
  stroke-width: 2;
}
text {
  font: 600 13px var(--display);
  fill: #7a4600;
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3.5px;
  pointer-events: none;
}
.vent text {
  fill: var(--tide);
}
.line:focus {
  outline: none;
}
.line:focus-visible .body {
  stroke-width: 9;
}
</style>
