<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { partArea } from '@wick/plan/part/figures';
import { processOf } from '@wick/plan/processes/processes';
import { ringBounds } from '@wick/core/geometry/arcs';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { fittingScale, papers, scales } from './paper.ts';
import PrintedBook from './PrintedBook.vue';
import PrintedPlan from './PrintedPlan.vue';
import { usePaper } from './use-paper.ts';
import Choice from '../../ui/Choice.vue';

/** Plan and ply book as a shop would pin them up: to scale, with dimensions, on the sheet that is chosen. */
const job = useSession();
const shop = useShopStore();
const { paperName, paper } = usePaper();
const wanted = ref(0);

const size = computed(() => {
  const box = ringBounds(job.laid.part.outline);
  return { width: box.maxX - box.minX, height: box.maxY - box.minY };
});
const fits = computed(() => fittingScale(size.value, paper.value));
const scale = computed(() => wanted.value || fits.value || scales.at(-1)!);
const tooLarge = computed(() => fits.value === null || scale.value < fits.value);
const scaleOptions = computed(() => [
  { value: 0, label: fits.value ? `largest that fits, 1:${fits.value}` : 'none fits' },
  ...scales.map((value) => ({ value, label: `1:${value}` })),
]);

const print = () => window.print();
const day = new Date().toLocaleDateString([], { dateStyle: 'medium' });
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="`/jobs/${job.id}/part`">Back to the job</RouterLink>
    <Choice
      v-model:value="paperName"
      class="sheet-size"
      aria-label="Sheet"
      :options="papers.map(({ name }) => ({ value: name, label: name }))"
    />
    <Choice v-model:value="wanted" class="scale" aria-label="Scale" :options="scaleOptions" />
    <Button type="primary" @click="print">Print</Button>
    <span v-if="tooLarge" class="ember" role="alert">
      At 1:{{ scale }} the plan is larger than {{ paper.name }}. Choose a smaller scale or a larger sheet.
    </span>
    <span v-else class="quiet">Print at 100 %, then check the bar under the plan with a rule.</span>
  </div>
  <main>
    <section
      class="page"
      :style="{ width: `${paper.width}mm`, height: `${paper.height}mm` }"
      data-testid="sheet"
    >
      <header>
        <b class="title">{{ job.laid.name }}</b>
        <span>{{ processOf(job.laid).name }} · {{ shop.show(partArea(job.laid.part), 'area') }}</span>
        <span v-if="job.laid.mould">on {{ job.laid.mould.name }}</span>
        <span class="number">1:{{ scale }}</span>
        <span>{{ shop.shop.name }}, {{ day }}</span>
      </header>
      <PrintedPlan :job="job.laid" :scale="scale" :paper="paper" />
    </section>
    <section class="page flow" :style="{ width: `${paper.width}mm`, minHeight: `${paper.height}mm` }">
      <PrintedBook :job="job.laid" />
    </section>
  </main>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.scale {
  width: 210px;
}
</style>
