<script setup lang="ts">
import type { Bag } from '@wick/plan/bag/bag';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The film to cut, the tape to lay, and whether all of it comes into every corner. */
const props = defineProps<{ bag: Bag }>();
const shop = useShopStore();
const count = computed(() => props.bag.bridges.length);
const headline = computed(() =>
  count.value === 0
    ? 'The bag reaches every corner'
    : `${count.value} ${count.value === 1 ? 'corner' : 'corners'} will bridge unless pressed in`,
);
const orientation = computed(() => {
  const { rollWidth, alongRoll, joins } = props.bag.film;
  if (rollWidth === null) return 'Choose a film with a roll width to see how it lies on the roll.';
  const way =
    alongRoll === 'length' ? 'Its longer side runs along the roll' : 'Its shorter side runs along the roll';
  return joins === 0
    ? `${way}, ${shop.showLong(rollWidth)} wide; no join.`
    : `${way}, ${shop.showLong(rollWidth)} wide, with ${joins} ${joins === 1 ? 'join' : 'joins'}.`;
});
const percent = (value: number) => `${Math.round(100 * (value - 1))} %`;
</script>

<template>
  <h2 :class="count > 0 ? 'ember' : 'moss'" data-testid="bag-verdict">{{ headline }}</h2>
  <div class="row">
    <span>Cut the film</span>
    <span class="number">{{ shop.showLong(bag.film.length) }} × {{ shop.showLong(bag.film.width) }}</span>
  </div>
  <div class="row">
    <span>Larger than the part by</span>
    <span class="number">{{ percent(bag.film.overSurface) }}</span>
  </div>
  <p class="quiet">
    {{ orientation }} Usual is {{ percent(bag.film.usual[0]) }} to {{ percent(bag.film.usual[1]) }} more than
    the part; a small part takes more, for its rim is long.
  </p>
  <div class="row">
    <span>Sealant tape</span><span class="number">{{ shop.showLong(bag.tape) }}</span>
  </div>
  <h3>Pleats</h3>
  <p v-if="bag.pleats.length === 0" class="quiet">None needed on a flat part.</p>
  <div v-for="(pleat, n) in bag.pleats" :key="n" class="row">
    <span>{{ n + 1 }}. {{ pleat.name }}</span>
    <span class="number">{{ shop.show(pleat.height, 'length') }} high</span>
  </div>
  <p v-if="bag.pleats.length > 0" class="quiet">
    A tenth taller than the rise, and together a fifth more film than the mould line needs. More are safe.
  </p>
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
  margin-bottom: 8px;
}
p {
  font-size: 12px;
  margin: 6px 0;
}
</style>
