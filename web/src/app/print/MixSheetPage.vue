<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { provideBench } from '../../stages/resin/bench.ts';
import SheetPaper from '../../stages/resin/SheetPaper.vue';
import { useSheets } from '../../stages/resin/use-sheets.ts';

/** The mix sheet of one batch, to hang beside the scale: one page, A4 or Letter. */
const job = useSession();
const forecast = useForecast();
const { number, sheet, potName, link } = useSheets(provideBench());
const print = () => window.print();
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="`/jobs/${job.id}/resin?pane=sheet${number > 1 ? `&batch=${number}` : ''}`"
      >Back to the sheet</RouterLink
    >
    <Button type="primary" :disabled="!sheet" @click="print">Print</Button>
    <span class="quiet">{{
      sheet ? 'One page, A4 or Letter.' : (forecast.message ?? 'working it out …')
    }}</span>
  </div>
  <main class="page">
    <SheetPaper v-if="sheet" :sheet="sheet" :job-name="job.laid.name" :pot-name="potName" :link="link" />
  </main>
</template>

<style scoped>
.bar {
  padding: 10px 16px;
  align-items: center;
}
.page {
  width: 190mm;
  margin: 8px auto 24px;
}
@media print {
  .page {
    margin: 0;
    width: auto;
  }
}
</style>
