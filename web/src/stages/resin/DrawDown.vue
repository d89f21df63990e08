<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import BatchBars from './BatchBars.vue';
import { useBench } from './bench.ts';
import { lastOf, type TimeScale } from './draw-down.ts';
import StockChart from './StockChart.vue';

/** Resin in each pot over the fuse's own time; under it, on the same scale, the batches. */
const bench = useBench();
const box = ref<HTMLElement | null>(null);
const width = ref(760);
const [LEFT, RIGHT] = [50, 14];
let observer: ResizeObserver | undefined;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => (width.value = Math.max(320, entry!.contentRect.width)));
  observer.observe(box.value!);
});
onBeforeUnmount(() => observer?.disconnect());

/** Shortest time that is shown, s, and room after the last thing that happens. */
const SHORTEST = 600;
const ROOM = 1.12;
/** While a hand holds a batch the scale stays as it is. */
let kept = SHORTEST;
const end = computed(() => {
  if (bench.held) return kept;
  const drawn = (bench.draw?.pots ?? []).flatMap(({ slow, middle }) => [slow, middle]);
  const poured = bench.batches.map(({ pouredAt }) => pouredAt);
  return (kept = ROOM * Math.max(SHORTEST, ...drawn.map(({ times }) => lastOf(times)), ...poured));
});
const scale = computed((): TimeScale => ({
  ...{ width: width.value, left: LEFT, inner: width.value - LEFT - RIGHT },
  end: end.value,
}));
const hasMany = computed(() => bench.stocks.length > 1);
</script>

<template>
  <div ref="box" class="chart">
    <StockChart
      v-for="(stock, n) in bench.stocks"
      :key="n"
      :stock="stock"
      :scale="scale"
      :name="hasMany ? stock.pot.pot.name : null"
    />
    <template v-if="bench.stocks.length > 0">
      <p class="legend quiet">
        <span><i class="middle"></i>as forecast</span>
        <span><i class="band"></i>between its fast and its slow side, one in ten beyond either</span>
      </p>
      <BatchBars :scale="scale" />
    </template>
  </div>
</template>

<style scoped>
.chart {
  width: 100%;
}
.legend {
  display: flex;
  gap: 4px 18px;
  margin: 0 0 4px 50px;
  font-size: 12px;
}
.legend i {
  display: inline-block;
  width: 22px;
  vertical-align: middle;
  margin-right: 6px;
}
.legend i.middle {
  border-top: 2.5px solid var(--resin-ink);
}
.legend i.band {
  height: 10px;
  background: var(--resin);
  opacity: 0.25;
}
</style>
