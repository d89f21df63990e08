<script setup lang="ts">
import { holdOf, pumpHazards, stoppedPumpCard } from '@wick/plan/vacuum/hold';
import { waitWords } from '@wick/plan/vacuum/words';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { useLeak } from './leak.ts';

/** How long the bag holds by itself, and what to do. */
const bench = useBench();
const job = useSession();
const run = useRun();
const shop = useShopStore();
const leak = useLeak();
const from = computed(() => bench.pressure ?? run.state.shutTimes.at(-1)?.judged?.start ?? bench.reach.best);
const hold = computed(() =>
  bench.freeVolume === null
    ? null
    : holdOf(job.laid, shop.shop, { from: from.value, freeVolume: bench.freeVolume, throughput: leak }),
);
const span = (soonest: number, latest: number) => {
  if (!Number.isFinite(soonest)) return 'does not come';
  return Number.isFinite(latest) && waitWords(soonest) !== waitWords(latest)
    ? `${waitWords(soonest)} to ${waitWords(latest)}`
    : `${waitWords(soonest)}${Number.isFinite(latest) ? '' : ' or more'}`;
};
const card = computed(() => stoppedPumpCard(job.laid));
</script>

<template>
  <div class="columns">
    <section aria-label="How long it holds">
      <h3>With the valve shut, from {{ shop.show(from, 'absolutePressure') }}</h3>
      <p class="quiet">{{ leak.words }}</p>
      <table v-if="hold" class="sheet">
        <thead>
          <tr>
            <th>Until it has risen to</th>
            <th>Then</th>
            <th>After</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="mark in hold.marks" :key="mark.why">
            <td class="number">{{ shop.show(mark.limit, 'absolutePressure') }}</td>
            <td>{{ mark.why }}</td>
            <td class="number">{{ span(mark.soonest, mark.latest) }}</td>
          </tr>
        </tbody>
      </table>
      <h3>Without a check valve, and nobody there</h3>
      <p v-if="hold">
        Air comes back through the pump: half of the vacuum is gone in
        <b class="number">{{
          hold.withoutValve < 90
            ? `${Math.max(1, Math.round(hold.withoutValve))} s`
            : waitWords(hold.withoutValve)
        }}</b>, and what stands in the catch pot is pushed back into the bag with it.
      </p>
    </section>
    <section aria-label="What to do when the pump stops">
      <h3>The pump has stopped: in this order</h3>
      <ol class="card">
        <li v-for="words in card" :key="words">{{ words }}</li>
      </ol>
      <h3>Mind</h3>
      <p v-for="words in pumpHazards" :key="words" class="caution">{{ words }}</p>
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 32px;
}
.card {
  margin: 0;
  padding-left: 22px;
  font-size: 16px;
  line-height: 1.45;
}
.card li {
  padding: 4px 0;
}
.caution {
  border-left: 3px solid var(--ember);
  padding-left: 10px;
  margin: 6px 0;
}
</style>
