<script setup lang="ts">
import { resinCsv, resinTables, resinWorkbook } from '@wick/plan/resin/out';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { saveFile } from '../../ui/save-file.ts';

/** Ledger and batches as tables to take along. */
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const tables = computed(() => resinTables(job.laid, shop.shop, forecast.isUpToDate ? forecast.flow : null));
const name = (kind: string) => `${job.laid.name} resin.${kind}`;
const saveCsv = () => saveFile(name('csv'), new Blob([resinCsv(tables.value!)], { type: 'text/csv' }));
async function saveWorkbook() {
  saveFile(name('xlsx'), await resinWorkbook(tables.value!));
}
</script>

<template>
  <div v-if="tables" class="tools out">
    <Button size="small" @click="saveCsv">Save as CSV</Button>
    <Button size="small" @click="saveWorkbook">Save as XLSX</Button>
  </div>
</template>

<style scoped>
.out {
  margin-top: 12px;
}
</style>
