<script setup lang="ts">
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useLog } from '../../stages/common/use-log.ts';
import ListBar from './ListBar.vue';
import { usePaper } from './use-paper.ts';

/** What was said in the run, on paper, in the order in which it happened. */
const job = useSession();
const run = useRun();
const { paperName, paper } = usePaper(true);
const { lines: all } = useLog();
const lines = computed(() => all.value.filter(({ isSmall }) => !isSmall));
const time = (at: string) => new Date(at).toLocaleString('sv-SE');
</script>

<template>
  <ListBar
    v-model="paperName"
    :to="`/jobs/${job.id}/run?pane=log`"
    back="Back to the log"
    :waits-for="lines.length === 0 ? 'Nothing has been written down in this run.' : null"
  />
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
        <tr v-for="{ entry, words, isStruck } in lines" :key="entry.id" :class="{ struck: isStruck }">
          <td class="time">{{ time(entry.at) }}</td>
          <td>{{ words }}</td>
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
