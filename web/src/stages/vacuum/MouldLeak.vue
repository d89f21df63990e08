<script setup lang="ts">
import { learnedOf, tightChance } from '@wick/plan/review/mould-learning';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';

/** What bags on this mould let in so far, and how likely the next one is tight enough. */
const bench = useBench();
const shop = useShopStore();
const leak = computed(() => bench.mould && learnedOf(bench.mould, 'leak'));
const limit = computed(() => bench.budget.value && mostThroughput(bench.budget.value));
const chance = computed(() =>
  bench.mould && limit.value !== null ? tightChance(bench.mould, limit.value) : null,
);
</script>

<template>
  <p v-if="leak" class="quiet" data-testid="mould-leak">
    Bags on {{ bench.mould!.name }} let in {{ shop.show(leak.value, 'throughput') }}, x/÷
    {{ leak.doubt.toFixed(1) }} (measured here, {{ leak.runIds.length }}
    {{ leak.runIds.length === 1 ? 'part' : 'parts' }})<template v-if="chance !== null && limit !== null"
      >; this part takes {{ shop.show(limit, 'throughput') }}: {{ Math.round(10 * chance) }} in 10 are tight
      enough</template
    >.
  </p>
</template>
