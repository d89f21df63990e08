<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import type { Stage } from '../stage.ts';
import BatchesAnswer from './BatchesAnswer.vue';
import BatchesPane from './BatchesPane.vue';
import { provideBench } from './bench.ts';
import QuantityAnswer from './QuantityAnswer.vue';
import QuantityPane from './QuantityPane.vue';
import SheetAnswer from './SheetAnswer.vue';
import SheetPane from './SheetPane.vue';
import SystemAnswer from './SystemAnswer.vue';
import SystemPane from './SystemPane.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const route = useRoute();
const router = useRouter();
const bench = provideBench();

/** The pane stands in the address, so that it can be sent to someone. */
const panes = computed(
  () =>
    [
      { value: 'system', label: 'Hardener' },
      { value: 'quantity', label: 'How much' },
      {
        value: 'batches',
        label: 'Batches',
        ...(bench.faults.length > 0 ? { note: bench.faults.length, isWarning: true } : {}),
      },
      { value: 'sheet', label: 'Mix sheet' },
    ] as const,
);
type Pane = (typeof panes.value)[number]['value'];
const pane = computed<Pane>(
  () => panes.value.find(({ value }) => value === route.query.pane)?.value ?? 'system',
);
const show = (value: Pane) =>
  void router.replace({ query: { ...route.query, pane: value === 'system' ? undefined : value } });
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Tabs class="tools" label="Resin" :model-value="pane" :tabs="panes" @update:model-value="show" />
    </template>
    <QuantityPane v-if="pane === 'quantity'" />
    <BatchesPane v-else-if="pane === 'batches'" />
    <SheetPane v-else-if="pane === 'sheet'" />
    <SystemPane v-else />
    <template #answer>
      <QuantityAnswer v-if="pane === 'quantity'" />
      <BatchesAnswer v-else-if="pane === 'batches'" />
      <SheetAnswer v-else-if="pane === 'sheet'" />
      <SystemAnswer v-else />
    </template>
  </StageShell>
</template>
