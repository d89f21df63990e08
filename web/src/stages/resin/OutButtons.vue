<script setup lang="ts">
import { resinCsv, resinTables, resinWorkbook } from '@wick/plan/resin/out';
import Button from 'ant-design-vue/es/button';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { saveFile } from '../../ui/save-file.ts';

/** Ledger and batches as tables to take along. */
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
/** Made when they are asked for. */
const tables = () => resinTables(job.laid, shop.shop, forecast.isUpToDate ? forecast.flow : null);
const saveAs = (content: Blob, kind: string) => saveFile(`${job.laid.name} resin.${kind}`, content);
function saveCsv() {
  const made = tables();
  if (made) saveAs(new Blob([resinCsv(made)], { type: 'text/csv' }), 'csv');
}
async function saveWorkbook() {
  const made = tables();
  if (made) saveAs(await resinWorkbook(made), 'xlsx');
}
</script>

<template>
  <div class="tools out">
    <Button size="small" @click="saveCsv">Save as CSV</Button>
    <Button size="small" @click="saveWorkbook">Save as XLSX</Button>
  </div>
</template>

<style scoped>
.out {
  margin-top: 12px;
}
</style>
