<script setup lang="ts">
import { degasOf } from '@wick/plan/resin/degas';
import { ratiosDisagree } from '@wick/plan/resin/ratio';
import { weighed } from '@wick/plan/resin/sheet';
import { orNull } from '@wick/core/model-error';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { useSheets } from './use-sheets.ts';

/** Can this batch be weighed here, does it fit its bucket, and is degassing worth its time. */
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const router = useRouter();
const { number, sheet } = useSheets(bench);
const show = (mass: number) => weighed(mass, shop.shop, sheet.value?.scaleStep);
const tooSmall = computed(() => sheet.value !== null && sheet.value.batch.mass < sheet.value.smallest);
const disagree = computed(() => bench.system && ratiosDisagree(bench.system));
const degas = computed(() => orNull(() => degasOf(job.laid, shop.shop)));
const percent = (share: number) => `${Number((100 * share).toPrecision(2))} %`;
const to = (page: 'mix' | 'sheet') =>
  void router.push({
    path: `/jobs/${job.id}/${page}`,
    query: number.value > 1 ? { batch: number.value } : {},
  });
</script>

<template>
  <template v-if="sheet">
    <div class="quiet">Batch {{ sheet.number }} of {{ sheet.count }}</div>
    <div class="number huge">{{ shop.show(sheet.batch.mass, 'mass') }}</div>
    <div class="tools act">
      <Button type="primary" size="large" @click="to('mix')">Mix by it</Button>
      <Button size="large" @click="to('sheet')">Print</Button>
    </div>
    <p v-if="disagree" class="ember" role="alert">{{ disagree }}</p>
    <p v-if="tooSmall" class="ember" role="alert">
      Too small for a scale in steps of {{ show(sheet.scaleStep) }}: it weighs {{ show(sheet.smallest) }} and
      more closely enough. Take a scale in steps of {{ show(sheet.coarsestStep) }} or mix more.
    </p>
    <div v-else class="row">
      <span>Smallest batch this scale weighs</span><span class="number">{{ show(sheet.smallest) }}</span>
    </div>
    <template v-if="sheet.bucket">
      <div class="row">
        <span>Fills {{ sheet.bucket.name }} to</span
        ><span :class="['number', { ember: sheet.bucket.isFull }]">{{ percent(sheet.bucket.filled) }}</span>
      </div>
      <p v-if="sheet.bucket.isFull" class="ember">Over eight tenths: it spills when it is stirred.</p>
    </template>
    <template v-if="degas">
      <h3>Degas or not</h3>
      <div class="row">
        <span>Voids from stirred-in air, without</span
        ><span class="number">{{ percent(degas.voidsWithout) }}</span>
      </div>
      <div class="row">
        <span>With</span><span class="number">{{ percent(degas.voidsWith) }}</span>
      </div>
      <div class="row">
        <span>It takes of the usable time</span><span class="number">{{ percent(degas.timeShare) }}</span>
      </div>
      <p class="quiet">
        {{ shop.show(degas.duration, 'duration')
        }}{{ degas.isPlanned ? ', as planned' : ', if it were done' }}. A hundredth of air stirred in and nine
        tenths of it taken out: common practice, no source.
        <template v-if="degas.boilsBelow !== null">
          Styrene boils out below {{ shop.show(degas.boilsBelow, 'absolutePressure') }}: stay above.
        </template>
      </p>
    </template>
  </template>
  <p v-else class="quiet">The sheet comes with a resin, its ratio and a laminate.</p>
</template>

<style scoped>
.huge {
  font-size: 40px;
  line-height: 1.1;
}
.act {
  margin: 10px 0 12px;
}
</style>
