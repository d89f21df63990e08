<script setup lang="ts">
import { formatQuantity } from '@wick/core/units/format';
import { gaugeSanity, gaugesDisagree } from '@wick/plan/vacuum/reach';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { usePressure } from './use-pressure.ts';

/** The reading large, what can be reached, the other gauges on the bag beside it, and what is odd about them. */
const bench = useBench();
const shop = useShopStore();
const pressure = usePressure();
const others = computed(() =>
  bench.gauges.slice(1).map((one) => ({
    name: one.instrument.name,
    text: one.last ? formatQuantity(one.last.value, one.instrument.measures, one.instrument.unit) : '–',
  })),
);
const oddities = computed(() => {
  if (bench.pressure === null) return [];
  const own = gaugeSanity(bench.pressure, { ...bench.reach, ambient: bench.ambient }, shop.show);
  const of = (measures: string) => bench.gauges.find(({ instrument }) => instrument.measures === measures);
  const [relative, absolute] = [of('gaugePressure'), of('absolutePressure')];
  const [a, b] = [absolute && bench.pressureOf(absolute), relative && bench.pressureOf(relative)];
  const apart =
    a && b ? gaugesDisagree(a, b, bench.ambient, relative!.instrument.resolution, shop.show) : null;
  return [own, apart].filter((words) => words !== null);
});
</script>

<template>
  <div class="reading">
    <p class="large" data-testid="reading" aria-live="off">
      {{ bench.pressure === null ? '–' : pressure.digits(bench.pressure) }}
      <small>{{ pressure.unit }} absolute</small>
    </p>
    <div class="beside">
      <p>
        <span class="quiet">Best reachable here</span>
        <b class="figure">{{ shop.show(bench.reach.best, 'absolutePressure') }}</b>
        <span class="quiet">{{ shop.show(bench.reach.onGauge, 'gaugePressure') }} on a needle</span>
      </p>
      <p v-for="other in others" :key="other.name">
        <span class="quiet">{{ other.name }}</span> <b class="figure">{{ other.text }}</b>
      </p>
      <p v-if="bench.gauge" class="quiet">
        Read by {{ bench.gauge.instrument.name }}, steps of
        {{ shop.show(bench.gauge.instrument.resolution, 'absolutePressure') }}
      </p>
    </div>
    <slot />
  </div>
  <p v-for="words in oddities" :key="words" class="ember" role="alert">{{ words }}</p>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 8px 28px;
  align-items: start;
}
.large {
  font: 600 58px/1 var(--display);
  font-variant-numeric: tabular-nums;
  color: var(--tide);
  margin: 0;
  min-width: 250px;
}
.large small {
  font: 400 15px var(--text);
  color: var(--quiet);
}
.beside p {
  margin: 0 0 2px;
}
.figure {
  font: 600 16px var(--display);
  margin: 0 6px;
}
</style>
