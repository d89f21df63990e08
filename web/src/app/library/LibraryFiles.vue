<script setup lang="ts">
import type { ImportCount } from '@wick/contract/api';
import Button from 'ant-design-vue/es/button';
import Dropdown from 'ant-design-vue/es/dropdown';
import Menu from 'ant-design-vue/es/menu';
import { ref, watch } from 'vue';
import { incomingLibrary } from '../../data/incoming.ts';
import { readFile } from '../../data/read-file.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { saveFile } from '../../ui/save-file.ts';

/** The library as a workbook or a table, out and in. An import is taken whole or not at all. */
const library = useLibraryStore();
const file = ref<HTMLInputElement | null>(null);
const answer = ref<{ text: string; isBad: boolean } | null>(null);
const formats = [
  { key: 'xlsx', label: 'Workbook (XLSX), a sheet a kind' },
  { key: 'csv', label: 'Table (CSV)' },
];

async function save(format: string) {
  if (format === 'csv') {
    const { csvOf } = await import('@wick/plan/files/library/sheets');
    saveFile('library.csv', new Blob([csvOf(library.materials)], { type: 'text/csv' }));
  } else {
    const { workbookOf } = await import('@wick/plan/files/library/workbook');
    saveFile('library.xlsx', await workbookOf(library.materials));
  }
}

async function take(chosen: File | undefined | null) {
  if (!chosen) return;
  answer.value = null;
  const refuse = (why: string | null) =>
    (answer.value = { text: `“${chosen.name}” was not taken in. ${why}`, isBad: true });
  const materials = await readFile<'library'>({ kind: 'library', file: chosen });
  if (file.value) file.value.value = '';
  if (!materials.ok) return refuse(materials.message);
  const count = await library.importAll(materials.value);
  if (!count) return refuse(library.problem);
  answer.value = { text: countWords(count), isBad: false };
}
const countWords = ({ added, changed, same }: ImportCount) =>
  `${added} added, ${changed} changed, ${same} as they were.`;
watch(
  incomingLibrary,
  (dropped) => {
    if (!dropped) return;
    incomingLibrary.value = null;
    void take(dropped);
  },
  { immediate: true },
);
</script>

<template>
  <Button @click="file?.click()">Import a table</Button>
  <input
    ref="file"
    type="file"
    accept=".csv,.xlsx"
    hidden
    aria-label="Library table to import"
    @change="take(file?.files?.[0])"
  />
  <Dropdown :trigger="['click']">
    <Button>Save as</Button>
    <template #overlay><Menu :items="formats" @click="save(String($event.key))" /></template>
  </Dropdown>
  <span
    v-if="answer"
    :class="answer.isBad ? 'ember' : 'moss'"
    :role="answer.isBad ? 'alert' : 'status'"
    data-testid="import-answer"
    >{{ answer.text }}</span
  >
</template>
