<script setup lang="ts">
import type { LedgerRow } from '@wick/core/ledger/resin-ledger';
import { computed, ref } from 'vue';
import { weighed } from '@wick/plan/resin/sheet';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import { useBench } from './bench.ts';
import LedgerPlan from './LedgerPlan.vue';
import MouldReserve from './MouldReserve.vue';
import ReserveField from './ReserveField.vue';
import WeightTable from './WeightTable.vue';

/** Every gram of resin by what asks for it: the row that is chosen lights up on the plan. */
const bench = useBench();
const shop = useShopStore();
const show = (mass: number) => weighed(mass, shop.shop);
/** What is less than half a gram is nobody's business. */
const LEAST = 5e-4;
const rows = computed(() => (bench.ledger?.rows ?? []).filter(({ mass }) => mass >= LEAST));
const keyOf = ({ what, name }: LedgerRow) => `${what} ${name}`;
const chosenKey = ref<string | null>(null);
const chosen = computed(
  () => rows.value.find((row) => keyOf(row) === chosenKey.value) ?? rows.value[0] ?? null,
);
const most = computed(() => Math.max(...rows.value.map(({ mass }) => mass)));
const wheres = [
  { where: 'part', words: 'stays in the part' },
  { where: 'waste', words: 'is thrown away with what lies on it' },
  { where: 'pot', words: 'never leaves pot and bucket' },
] as const;
const sums = computed(() =>
  wheres.map(({ where, words }) => ({
    words,
    mass: rows.value.filter((row) => row.where === where).reduce((sum, { mass }) => sum + mass, 0),
  })),
);
</script>

<template>
  <div class="columns">
    <section aria-label="Resin, line by line">
      <p v-if="rows.length === 0" class="quiet">
        Plies and a resin are needed before anybody can say how much. Lay them under Laminate, choose it under
        Hardener.
      </p>
      <ul v-else class="ledger" data-testid="ledger">
        <li v-for="row in rows" :key="keyOf(row)">
          <button
            type="button"
            :class="['plain', 'line', { here: row === chosen }]"
            :aria-pressed="row === chosen"
            @click="chosenKey = keyOf(row)"
          >
            <span>{{ row.name }}</span>
            <span class="bar"
              ><i :class="row.where" :style="{ width: `${(100 * row.mass) / most}%` }"></i
            ></span>
            <span class="number">{{ show(row.mass) }}</span>
          </button>
        </li>
        <li v-for="{ words, mass } in sums" :key="words" class="sum quiet">
          <span>{{ words }}</span><span class="number">{{ show(mass) }}</span>
        </li>
      </ul>
      <div class="fields">
        <JobField label="Heel in each pot" path="resin.heel" />
        <ReserveField />
      </div>
      <MouldReserve />
    </section>
    <section class="beside">
      <LedgerPlan v-if="chosen" :row="chosen" />
      <WeightTable v-if="bench.weights" :weights="bench.weights" />
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 12px 28px;
  margin-top: 6px;
}
.ledger {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line,
.sum {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 76px;
  gap: 10px;
  width: 100%;
  padding: 4px 6px;
  border-bottom: 1px solid var(--rule);
  align-items: center;
}
.sum {
  grid-template-columns: minmax(0, 1fr) 76px;
  font-size: 12px;
  border: 0;
  padding: 2px 6px;
}
.line:hover {
  background: var(--sheet);
}
.line.here {
  background: #f1e4cb;
}
.line .number,
.sum .number {
  text-align: right;
}
.bar i {
  display: block;
  height: 9px;
  min-width: 1px;
}
.bar .part {
  background: var(--resin);
}
.bar .waste {
  background: repeating-linear-gradient(135deg, var(--resin) 0 2px, transparent 2px 5px);
}
.bar .pot {
  background: var(--quiet);
}
.fields {
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 12px;
  margin-top: 12px;
}
</style>
