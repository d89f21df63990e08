<script setup lang="ts">
import { hardenerWord } from '@wick/plan/resin/ratio';
import { weighed } from '@wick/plan/resin/sheet';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { useMix } from './use-mix.ts';

/** Every pour, with what is in the bucket by now. */
const mix = useMix();
const shop = useShopStore();
const show = (mass: number) => weighed(mass, shop.shop, mix.step);
const wordOf = (what: 'resin' | 'hardener') => (what === 'hardener' ? hardenerWord(mix.sheet!.resin) : what);
const time = (at: string) => new Date(at).toLocaleTimeString('sv-SE');
const total = computed(() => mix.mix!.poured.resin + mix.mix!.poured.hardener);
</script>

<template>
  <h3>In the bucket: {{ show(total) }}</h3>
  <ul data-testid="pours">
    <li v-for="{ id, at, by, body } in mix.mix!.pours" :key="id">
      <span class="number">{{ time(at) }}</span>
      <span
        >{{ show(body.mass) }} {{ wordOf(body.what) }}{{ body.instrumentId ? '' : ', typed'
        }}{{ by ? `, ${by}` : '' }}</span
      >
    </li>
  </ul>
  <p v-if="mix.mix!.pours.length === 0" class="quiet none">Nothing poured yet.</p>
  <p class="quiet none">What is in stays in: too much of one is made good by the other.</p>
  <Button v-if="total > 0" @click="mix.beginAgain">Thrown away: begin this batch anew</Button>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 15px;
}
.none {
  display: block;
  font-size: 14px;
}
</style>
