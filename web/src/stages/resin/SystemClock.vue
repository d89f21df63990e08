<script setup lang="ts">
import { systemsOn, type SystemRow, type SystemTimes } from '@wick/plan/resin/systems';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { niceStep } from '../../board/viewport.ts';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Tabs from '../../ui/Tabs.vue';

/** Every system of the library on one clock: how long it is usable and when it gels, beside when this layout would be full. */
const emit = defineEmits<{ choose: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const library = useLibraryStore();
const forecast = useForecast();
const box = ref<HTMLElement | null>(null);
const width = ref(700);
let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = Math.max(420, entry!.contentRect.width)));
  observer.observe(box.value!);
});
onBeforeUnmount(() => observer?.disconnect());

const rows = computed(() =>
  systemsOn(job.laid, shop.shop, forecast.isUpToDate ? forecast.flow : null, library.materials),
);
const when = ref<'now' | 'morning' | 'afternoon'>('now');
const names = { morning: 'Morning', now: 'Now', afternoon: 'Afternoon' };
const tabs = computed(() =>
  (rows.value[0]?.times ?? []).map(({ id, temperature, isAssumed }) => ({
    value: id,
    label: `${names[id]} ${shop.show(temperature, 'temperature')}${isAssumed ? ', assumed' : ''}`,
  })),
);
const LEFT = 190;
const RIGHT = 100;
const LANE = 26;
const TOP = 16;
const wordsOf = (time: SystemTimes) =>
  time.isKnown ? `${time.endsUnknown ? 'data to ' : ''}${Math.round(time.gel / 60)} min` : time.why;
const timeOf = (row: SystemRow) => row.times.find(({ id }) => id === when.value)!;
const lanes = computed(() => rows.value.map((row) => ({ row, time: timeOf(row) })));
/** The longest is cut off where it would leave the others no room. */
const end = computed(() => {
  const gels = rows.value.flatMap(({ times }) => times.flatMap((time) => (time.isKnown ? time.gel : [])));
  const sorted = [...gels].sort((a, b) => a - b);
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 3600;
  return Math.min(Math.max(600, ...gels), Math.max(4 * middle, 3600));
});
const x = (time: number) => LEFT + (Math.min(time, end.value) / end.value) * (width.value - LEFT - RIGHT);
const ticks = computed(() => {
  const step = Math.max(1, niceStep(end.value / 60, Math.max(3, (width.value - LEFT) / 90)));
  return Array.from({ length: Math.floor(end.value / 60 / step) + 1 }, (_, n) => n * step * 60);
});
const height = computed(() => TOP + LANE * rows.value.length + 4);
</script>

<template>
  <section ref="box" aria-label="Every system on one clock" data-testid="systems">
    <div class="head">
      <h3>Every system on one clock, from first mix</h3>
      <Tabs v-model="when" class="tools" label="Time of the day" :tabs="tabs" />
    </div>
    <svg :width="width" :height="height" role="group" aria-label="Usable time and gel of each system">
      <g class="grid">
        <template v-for="tick in ticks" :key="tick">
          <line :x1="x(tick)" :x2="x(tick)" :y1="TOP" :y2="height" />
          <text :x="x(tick)" :y="11" text-anchor="middle">{{ tick / 60 }}{{ tick > 0 ? '' : ' min' }}</text>
        </template>
      </g>
      <g
        v-for="({ row, time }, n) in lanes"
        :key="row.resin.id"
        :class="['lane', { own: row.isOwn }]"
        tabindex="0"
        role="button"
        :aria-pressed="row.isOwn"
        @click="emit('choose', row.resin.id)"
        @keydown.enter="emit('choose', row.resin.id)"
      >
        <rect class="touch" x="0" :y="TOP + LANE * n" :width="width" :height="LANE" />
        <text x="0" :y="TOP + LANE * n + 17" class="name">{{ row.resin.name }}</text>
        <template v-if="time.isKnown">
          <rect class="gels" :x="LEFT" :y="TOP + LANE * n + 8" :width="x(time.gel) - LEFT" height="10" />
          <rect class="usable" :x="LEFT" :y="TOP + LANE * n + 8" :width="x(time.usable) - LEFT" height="10" />
          <text :x="x(time.gel) + 5" :y="TOP + LANE * n + 17" class="number">
            {{ wordsOf(time) }}
          </text>
          <path
            v-if="time.fill !== null && time.fill <= end"
            class="fill"
            :d="`M${x(time.fill)} ${TOP + LANE * n + 4}v18`"
          />
        </template>
        <text v-else :x="LEFT" :y="TOP + LANE * n + 17" class="why">{{ wordsOf(time) }}</text>
      </g>
    </svg>
    <p class="legend quiet">
      <span><i class="usable"></i>usable as the workshop judges it</span>
      <span><i class="gels"></i>on to gel, from this job’s pot</span>
      <span><i class="fill"></i>this layout is full with it</span>
    </p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
h3 {
  margin: 8px 0 2px;
}
svg {
  display: block;
}
text {
  font: 400 12px var(--text);
  fill: var(--quiet);
}
.grid line {
  stroke: var(--rule);
}
.lane {
  cursor: pointer;
}
.touch {
  fill: transparent;
}
.lane:hover .touch {
  fill: var(--sheet);
}
.lane.own .touch {
  fill: #f1e4cb;
}
.lane .name {
  fill: var(--ink);
}
.lane.own .name {
  font-weight: 700;
}
.lane .number {
  font: 600 12px var(--display);
  fill: var(--ink);
}
.why {
  font-size: 11px;
}
rect.usable,
i.usable {
  fill: var(--resin);
  background: var(--resin);
}
rect.gels,
i.gels {
  fill: #d9b988;
  background: #d9b988;
}
path.fill {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 2px 0 6px;
  font-size: 12px;
}
.legend i {
  display: inline-block;
  width: 20px;
  height: 8px;
  margin-right: 6px;
}
.legend i.fill {
  width: 0;
  height: 12px;
  border-left: 2.5px solid var(--ink);
  vertical-align: middle;
}
</style>
