<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { hoseRunsOf } from '@wick/plan/layout/hoses';
import { computed } from 'vue';
import { pathOf, toScreen, type Viewport } from '../../board/viewport.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** Hoses with their valves, tees, pots and pumps. */
const props = defineProps<{
  view: Viewport;
  selected: string | null;
  openLines: ReadonlyMap<string, number>;
}>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();

const hoses = computed(() =>
  hoseRunsOf(job.laid).flatMap((run) => {
    if (!run.from || !run.to) return [];
    const [from, to] = [toScreen(props.view, run.from), toScreen(props.view, run.to)];
    const away = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const share = Math.max(0.5, 1 - 34 / away);
    return [
      {
        ...run,
        path: pathOf(props.view, [run.from, run.to], false),
        valve: { x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) },
        angle: (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI,
        middle: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 },
        opening: props.openLines.get(run.id),
        words: shop.show(run.length, 'length'),
      },
    ];
  }),
);
const fittings = computed(() => [
  ...job.laid.stations.map((station) => ({ ...station, at: toScreen(props.view, station.place) })),
  ...job.laid.tees.flatMap((tee) =>
    tee.place ? [{ ...tee, kind: 'tee' as const, at: toScreen(props.view, tee.place) }] : [],
  ),
]);
</script>

<template>
  <g v-for="hose in hoses" :key="`hose ${hose.id}`" :class="['hose', hose.kind]">
    <path :d="hose.path" />
    <g
      v-if="hose.opening !== undefined"
      :transform="`translate(${hose.valve.x} ${hose.valve.y}) rotate(${hose.angle})`"
      :class="['valve', { shut: hose.opening === 0 }]"
    >
      <rect x="-4" y="-8" width="8" height="16" rx="2" />
      <path v-if="hose.opening > 0" d="M-4 0H4" />
    </g>
    <text v-if="selected === hose.id" :x="hose.middle.x + 8" :y="hose.middle.y - 6">{{ hose.words }}</text>
  </g>
  <g
    v-for="item in fittings"
    :key="item.id"
    :class="['fitting', item.kind, { selected: selected === item.id }]"
    :transform="`translate(${item.at.x} ${item.at.y})`"
    tabindex="0"
    role="button"
    :aria-label="item.name"
    @focus="emit('select', item.id)"
  >
    <circle r="16" class="reach" />
    <path v-if="item.kind === 'pot'" class="shape" d="M-10 -9V9H10V-9" />
    <path v-if="item.kind === 'pot'" class="level" d="M-9 -1H9V8H-9Z" />
    <path v-if="item.kind === 'pump'" class="shape" d="M-11 8V-8H3L11 0V8Z" />
    <circle v-if="item.kind === 'tee'" r="5" class="shape" />
    <text x="0" :y="item.kind === 'tee' ? -10 : 24">{{ item.name }}</text>
  </g>
</template>

<style scoped>
.hose {
  --colour: var(--resin);
}
.hose.vent,
.fitting.pump {
  --colour: var(--tide);
}
.fitting {
  --colour: var(--resin);
  cursor: move;
}
.hose > path {
  fill: none;
  stroke: var(--colour);
  stroke-width: 1.6;
}
.valve rect {
  fill: #fbfaf6;
  stroke: var(--colour);
  stroke-width: 1.6;
}
.valve path {
  stroke: var(--colour);
  stroke-width: 2.4;
}
.valve.shut rect {
  fill: var(--ink);
  stroke: var(--ink);
}
.shape {
  fill: #fbfaf6;
  stroke: var(--colour);
  stroke-width: 2;
}
.level {
  fill: var(--colour);
  opacity: 0.7;
}
.reach {
  fill: transparent;
}
.selected .shape {
  stroke-width: 3.4;
}
text {
  font: 500 12px var(--display);
  text-anchor: middle;
  fill: var(--ink);
  paint-order: stroke;
  stroke: #f6f3ec;
  stroke-width: 3px;
  pointer-events: none;
}
.hose text {
  fill: var(--quiet);
  font-size: 11px;
}
</style>
