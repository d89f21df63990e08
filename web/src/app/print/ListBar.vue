<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import Choice from '../../ui/Choice.vue';
import { listPapers } from './use-paper.ts';

/** Over a printed list: the way back, the paper, and what it still waits for. */
defineProps<{ to: string; back: string; waitsFor: string | null }>();
const paperName = defineModel<string>({ required: true });
const print = () => window.print();
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="to">{{ back }}</RouterLink>
    <Choice
      class="sheet-size"
      :value="paperName"
      :options="listPapers"
      aria-label="Paper"
      @change="paperName = String($event)"
    />
    <Button type="primary" :disabled="waitsFor !== null" @click="print">Print</Button>
    <span v-if="waitsFor" class="quiet">{{ waitsFor }}</span>
  </div>
</template>

<style scoped src="./sheet.css"></style>
