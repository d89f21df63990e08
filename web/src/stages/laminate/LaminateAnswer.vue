<script setup lang="ts">
import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import { materialOf } from '@wick/plan/job/material-of';
import { settle } from '@wick/plan/settle';
import type { BookCheck } from '@wick/core/laminate/ply-book';
import type { Stack } from '@wick/core/laminate/stack';
import { availablePressure } from '@wick/plan/laminate/stack';
import type { PartSums } from '@wick/plan/laminate/ply-book';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import NewerValues from '../common/NewerValues.vue';

/** Thickness, weights and what the checks say, of the laminate shown and of the whole part. */
const props = defineProps<{
  book: Book;
  result: { message?: string; stack?: Stack; check?: BookCheck; sums?: PartSums };
}>();
const job = useSession();
const shop = useShopStore();
const resin = computed(() => materialOf(job.laid, job.laid.resin.materialId, 'resin'));
const density = computed(() => settle(job.laid, shop.shop)['resin.density'].value);
const mostPressure = computed(() => availablePressure(job.laid, shop.shop));
const partMass = computed(() => {
  const { sums } = props.result;
  return sums && sums.fibre + sums.core + density.value * (sums.resinInPlies + sums.resinInCore);
});
const weightFraction = computed(() => {
  const { stack } = props.result;
  return stack && stack.fibreWeight / (stack.fibreWeight + density.value * stack.resinInPlies);
});
const balanceWords = {
  yes: 'balanced',
  no: 'not balanced',
  unknown: 'balance not known: a cloth has no fibre directions in the library',
};
</script>

<template>
  <p v-if="result.message" class="ember" role="alert">{{ result.message }}</p>
  <template v-if="result.stack && result.sums && result.check">
    <div class="quiet">{{ book.name }}, {{ book.laminate.plies.length }} plies</div>
    <div class="number huge" data-testid="thickness">
      {{ shop.show(result.stack.laminateThickness, 'thickness') }}
    </div>
    <p
      :class="['check', { ember: !result.check.isSymmetric || result.check.balance === 'no' }]"
      data-testid="book-check"
    >
      {{
        result.check.isSymmetric ? 'Symmetric' : `Not symmetric from ply ${result.check.firstOdd! + 1} on`
      }},
      {{ balanceWords[result.check.balance] }}
    </p>
    <div class="row">
      <span>With core</span><span class="number">{{ shop.show(result.stack.thickness, 'thickness') }}</span>
    </div>
    <div class="row">
      <span>Fibre volume</span
      ><span class="number">{{ shop.show(result.stack.fibreVolumeFraction, 'fraction') }}</span>
    </div>
    <div class="row">
      <span>Fibre by weight</span><span class="number">{{ shop.show(weightFraction, 'fraction') }}</span>
    </div>
    <div class="row">
      <span>Pressed with</span
      ><span class="number">{{ shop.show(result.stack.compactionPressure, 'gaugePressure') }}</span>
    </div>
    <div class="row">
      <span>Most this bag can press</span
      ><span class="number">{{ shop.show(mostPressure, 'gaugePressure') }}</span>
    </div>
    <div class="row">
      <span>Fibre a square metre</span
      ><span class="number">{{ shop.show(result.stack.fibreWeight, 'arealWeight') }}</span>
    </div>
    <h3>Whole part, all zones</h3>
    <div class="row">
      <span>Fibre</span
      ><span class="number" data-testid="fibre-mass">{{ shop.show(result.sums.fibre, 'mass') }}</span>
    </div>
    <div v-if="result.sums.core > 0" class="row">
      <span>Core</span><span class="number">{{ shop.show(result.sums.core, 'mass') }}</span>
    </div>
    <div class="row">
      <span>Resin that stays in</span
      ><span class="number">{{
        shop.show(density * (result.sums.resinInPlies + result.sums.resinInCore), 'mass')
      }}</span>
    </div>
    <div class="row">
      <span>Part as it leaves the mould</span><span class="number">{{ shop.show(partMass, 'mass') }}</span>
    </div>
    <p v-if="!resin" class="quiet">Resin taken at {{ shop.show(density, 'density') }} until one is chosen.</p>
    <h3>How resin runs in it</h3>
    <div class="row">
      <span>Flow carried by the mesh</span
      ><span class="number">{{ shop.show(result.stack.meshShare, 'fraction') }}</span>
    </div>
    <NewerValues :kinds="['fabric', 'core', 'flowMesh', 'peelPly']" />
    <p class="quiet">
      Permeability is the least certain number here: a front timed on a test strip is worth more than any
      table. A stepped edge is counted in weight and cut list; the flow takes all plies to the zone’s edge.
    </p>
  </template>
</template>

<style scoped>
.huge {
  font-size: 40px;
  line-height: 1.1;
}
.check {
  font: 600 15px/1.35 var(--display);
  margin: 4px 0 8px;
  color: var(--moss);
}
.check.ember {
  color: var(--ember);
}
</style>
