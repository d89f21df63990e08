<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { useForecast } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import PotPanel from './PotPanel.vue';

/** Does it run dry, by how much does it not, and what is left. */
const bench = useBench();
const shop = useShopStore();
const forecast = useForecast();
const dry = computed(() => {
  const times = bench.stocks.flatMap(({ fast }) => fast.dryAt ?? []);
  return times.length > 0 ? Math.min(...times) : null;
});
const others = computed(() => bench.faults.filter(({ kind }) => kind !== 'dry').length);
const least = computed(() =>
  bench.stocks.reduce<{ time: number; spare: number } | null>((found, { fast, pot }) => {
    if (pot.fast.times.length === 0) return found;
    const own = { time: fast.least.time, spare: fast.least.mass - pot.floor };
    return found === null || own.spare < found.spare ? own : found;
  }, null),
);
const left = computed(() =>
  bench.stocks.reduce((sum, { middle, pot }) => sum + Math.max(0, middle.left - pot.cup), 0),
);
</script>

<template>
  <template v-if="bench.draw">
    <h2 v-if="dry !== null" class="ember" data-testid="dry-words">
      {{ bench.pots.length > 1 ? 'A pot' : 'The pot' }} runs dry at {{ formatClock(dry) }}, if it goes fast
    </h2>
    <h2 v-else-if="others > 0" class="ember" data-testid="dry-words">
      It does not run dry, but the batches do not fit
    </h2>
    <h2 v-else class="moss" data-testid="dry-words">
      {{ bench.pots.length > 1 ? 'No pot' : 'The pot never' }} runs dry
    </h2>
    <div v-if="least" class="row">
      <span>Least over the heel, if it goes fast</span
      ><span class="number">{{ shop.show(least.spare, 'mass') }}</span>
    </div>
    <div v-if="least" class="row">
      <span>That is at</span><span class="number">{{ formatClock(least.time) }}</span>
    </div>
    <div class="row">
      <span>Left at the end</span><span class="number">{{ shop.show(left, 'mass') }}</span>
    </div>
    <div v-for="{ pot } in bench.stocks" :key="pot.pot.name" class="row">
      <span>{{ bench.pots.length > 1 ? `Drawn from ${pot.pot.name}` : 'Drawn in all' }}</span>
      <span class="number">{{
        shop.show(pot.middle.masses[pot.middle.masses.length - 1] ?? 0, 'mass')
      }}</span>
    </div>
    <p v-if="!bench.draw.isWhole" class="ember">
      This layout does not draw all of it before the resin gels: see Lines first.
    </p>
  </template>
  <p v-else class="quiet">No draw-down: {{ forecast.message ?? 'the forecast is being worked out.' }}</p>
  <PotPanel />
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
  margin-bottom: 8px;
}
</style>
