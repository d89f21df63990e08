<script setup lang="ts">
import { hardenerWord } from '@wick/plan/resin/ratio';
import { quickRuleWords } from '@wick/plan/resin/words';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import NewerValues from '../common/NewerValues.vue';
import { useBench } from './bench.ts';
import OutButtons from './OutButtons.vue';
import PotPanel from './PotPanel.vue';

/** How much to mix, and why the rule of thumb says otherwise. */
const bench = useBench();
const shop = useShopStore();
const job = useSession();
const forecast = useForecast();
const words = computed(() => bench.ledger && quickRuleWords(bench.ledger, (mass) => shop.show(mass, 'mass')));
const other = computed(() => (bench.system ? hardenerWord(bench.system) : 'hardener'));
</script>

<template>
  <template v-if="bench.ledger">
    <div class="quiet">Resin to mix</div>
    <div class="number huge" data-testid="resin-mass">{{ shop.show(bench.ledger.total, 'mass') }}</div>
    <div class="row">
      <span>Of it resin</span><span class="number">{{ shop.show(bench.ledger.resin, 'mass') }}</span>
    </div>
    <div class="row">
      <span>Of it {{ other }}, by weight</span
      ><span class="number">{{ shop.show(bench.ledger.hardener, 'mass') }}</span>
    </div>
    <h3>The quick rule</h3>
    <div class="row">
      <span>Fibre and a kilogram</span
      ><span class="number">{{ shop.show(bench.ledger.quickRule, 'mass') }}</span>
    </div>
    <p class="quiet">{{ words }}</p>
    <PotPanel />
    <NewerValues :kinds="['resin']" />
    <OutButtons />
  </template>
  <p v-else class="quiet">
    {{ forecast.message ?? `${job.laid.name} does not tell yet how much it takes.` }}
  </p>
</template>

<style scoped>
.huge {
  font-size: 40px;
  line-height: 1.1;
}
</style>
