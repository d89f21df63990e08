<script setup lang="ts">
import { isQuiet, logWords, type LogWriting } from '@wick/plan/run/log-words';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useInstruments } from '../../data/instruments.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { listPapers, usePaper } from './use-paper.ts';

/** What was said in the run, on paper, in the order in which it happened. */
const job = useSession();
const run = useRun();
const shop = useShopStore();
const { list } = useInstruments();
const { paperName, paper } = usePaper(true);
const writing = computed((): LogWriting => ({
  show: shop.show,
  instrumentName: (id) => list.value.find((one) => one.id === id)?.name ?? 'Instrument',
  find: (id) => run.entries.find((entry) => entry.id === id),
}));
const struck = computed(
  () => new Set(run.entries.flatMap(({ body }) => (body.kind === 'struck' ? [body.entryId] : []))),
);
const lines = computed(() =>
  run.entries
    .filter((entry) => !isQuiet(entry))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || a.order - b.order),
);
const time = (at: string) => new Date(at).toLocaleString('sv-SE');
const print = () => window.print();
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="`/jobs/${job.id}/run?pane=log`">Back to the log</RouterLink>
    <Choice
      class="sheet-size"
      :value="paperName"
      :options="listPapers"
      aria-label="Paper"
      @change="paperName = String($event)"
    />
    <Button type="primary" :disabled="lines.length === 0" @click="print">Print</Button>
    <span v-if="lines.length === 0" class="quiet">Nothing has been written down in this run.</span>
  </div>
  <main
    class="page flow list"
    data-testid="printed-log"
    :style="{ width: `${paper.width}mm`, minHeight: `${paper.height}mm` }"
  >
    <header>
      <span class="title">{{ job.document.name }}</span>
      <span v-if="run.run">{{ run.run.kind === 'part' ? 'Part' : 'Rehearsal' }} {{ run.run.number }}</span>
    </header>
    <table>
      <tbody>
        <tr v-for="entry in lines" :key="entry.id" :class="{ struck: struck.has(entry.id) }">
          <td class="time">{{ time(entry.at) }}</td>
          <td>{{ logWords(entry, writing) }}</td>
          <td>{{ entry.by }}</td>
        </tr>
      </tbody>
    </table>
  </main>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.page {
  font-size: 3.3mm;
  color: #000;
}
table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  break-inside: avoid;
}
td {
  padding: 0.6mm 3mm 0.6mm 0;
  border-bottom: 0.15mm solid #999;
  vertical-align: top;
}
.time {
  white-space: nowrap;
  width: 36mm;
}
.struck td:nth-child(2) {
  text-decoration: line-through;
}
</style>
