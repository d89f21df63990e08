<script setup lang="ts">
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import Tabs from '../../ui/Tabs.vue';
import JobField from '../common/JobField.vue';
import { useBench } from './bench.ts';
import LotTable from './LotTable.vue';
import SheetPaper from './SheetPaper.vue';
import { useSheets } from './use-sheets.ts';

/** What is weighed, in which order, out of which containers. */
const bench = useBench();
const job = useSession();
const forecast = useForecast();
const { number, look, sheet, potName, link } = useSheets(bench);
const tabs = computed(() => bench.batches.map((_, n) => ({ value: String(n + 1), label: `Batch ${n + 1}` })));
</script>

<template>
  <div v-if="tabs.length > 1" class="tools bar">
    <Tabs
      class="tools"
      label="Batch"
      :model-value="String(number)"
      :tabs="tabs"
      @update:model-value="look(Number($event))"
    />
  </div>
  <SheetPaper v-if="sheet" :sheet="sheet" :job-name="job.laid.name" :pot-name="potName" :link="link" />
  <p v-else class="quiet waits">
    No sheet yet: {{ forecast.message ?? 'a resin with its ratio and a laminate are needed.' }}
  </p>
  <div class="fields"><JobField label="Step of the scale" path="resin.scaleStep" unit="g" /></div>
  <LotTable v-if="bench.system" :resin="bench.system" />
</template>

<style scoped>
.bar,
.waits {
  margin: 4px 0 8px;
}
.fields {
  display: grid;
  grid-template-columns: 160px;
  margin: 12px 0 0;
}
</style>
