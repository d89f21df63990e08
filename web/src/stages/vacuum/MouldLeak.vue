<script setup lang="ts">
import { mouldWords, tightChance } from '@wick/plan/review/mould-learning';
import { leakWords } from '@wick/plan/vacuum/words';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { computed } from 'vue';
import { useBench } from './bench.ts';

/** What bags on this mould let in so far, and how likely the next one is tight enough. */
const bench = useBench();
const words = computed(() => bench.mould && mouldWords(bench.mould, 'leak'));
const limit = computed(() => bench.budget.value && mostThroughput(bench.budget.value));
const chance = computed(() => bench.mould && limit.value && tightChance(bench.mould, limit.value));
</script>

<template>
  <p v-if="words" class="quiet" data-testid="mould-leak">
    {{ words
    }}<template v-if="chance !== null && limit"
      >; this part takes {{ leakWords(limit) }}: {{ Math.round(10 * chance) }} in 10 are tight
      enough</template
    >.
  </p>
</template>
