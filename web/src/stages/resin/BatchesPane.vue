<script setup lang="ts">
import { orNull } from '@wick/core/model-error';
import { newId } from '@wick/plan/job/ids';
import { hasFront } from '@wick/plan/processes/processes';
import { preparationOf } from '@wick/plan/resin/batches';
import { addBatch, clearBatches, takeBatches } from '@wick/plan/resin/edits';
import { byHandWords } from '@wick/plan/resin/by-hand';
import { faultWords, suggestionWords } from '@wick/plan/resin/words';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import BatchTable from './BatchTable.vue';
import { useBench } from './bench.ts';
import DrawDown from './DrawDown.vue';
import MixingKit from './MixingKit.vue';

/** Does the bucket ever run dry: what is drawn, what is poured in, and when the next has to be mixed. */
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const show = (mass: number) => shop.show(mass, 'mass');
const wrong = computed(() =>
  bench.draw ? bench.faults.map((fault) => faultWords(fault, bench.batches, bench.draw!)) : [],
);
const suggested = computed(() =>
  bench.suggestion ? suggestionWords(bench.suggestion, bench.pots, show) : [],
);
function take() {
  const found = bench.suggestion;
  if (!found?.isFeasible) return;
  const ids = found.batches.map(() => newId());
  job.apply(takeBatches(found.batches, bench.pots, ids), 'suggested batches');
}
function add() {
  const last = bench.batches.at(-1);
  const spacing = preparationOf(job.laid);
  const named = { id: newId(), stationId: bench.pots[0]!.id, mixedAt: 0, mass: last ? last.mass / 2 : null };
  const next = { ...named, id: newId(), mixedAt: Math.round((last?.mixedAt ?? 0) + spacing), mass: null };
  job.apply(addBatch(next, named), 'a further batch');
}
const handWords = computed(() =>
  hasFront(job.laid) ? null : orNull(() => byHandWords(job.laid, shop.shop, show)),
);
const hasBatches = computed(() => job.laid.resin.batches.length > 0);
</script>

<template>
  <p v-if="handWords" class="waits" data-testid="by-hand">{{ handWords }}</p>
  <p v-else-if="!bench.draw" class="quiet waits">
    {{ forecast.message ?? 'Working out how fast the resin is drawn …' }}
  </p>
  <DrawDown />
  <div class="tools bar">
    <Button size="small" @click="add">A further batch</Button>
    <Button size="small" :disabled="!hasBatches" @click="job.apply(clearBatches, 'all in one batch')"
      >All in one</Button
    >
    <span v-if="bench.draw" class="quiet"
      >Drag a bar to mix it earlier or later; the first one starts the clock.</span
    >
  </div>
  <div v-if="wrong.length > 0" class="wrong" role="alert" data-testid="batch-faults">
    <p v-for="words in wrong" :key="words">{{ words }}</p>
  </div>
  <div class="columns">
    <BatchTable />
    <section v-if="suggested.length > 0" aria-label="Suggested batches" data-testid="suggested">
      <h3>Suggested</h3>
      <p v-for="words in suggested" :key="words">{{ words }}</p>
      <Button v-if="bench.suggestion?.isFeasible" size="small" type="primary" @click="take"
        >Take these</Button
      >
    </section>
  </div>
  <MixingKit />
</template>

<style scoped>
.waits {
  margin: 8px 0;
}
.bar {
  margin: 6px 0;
}
.wrong {
  margin: 2px 0 6px;
  color: var(--ember);
}
.wrong p {
  margin: 2px 0;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 8px 28px;
  align-items: start;
}
.columns h3 {
  margin-top: 4px;
}
.columns p {
  margin: 2px 0 4px;
}
</style>
