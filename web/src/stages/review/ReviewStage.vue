<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useCard } from '../../compute/use-desk.ts';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import RunBar from '../common/RunBar.vue';
import type { Stage } from '../stage.ts';
import CausesAnswer from './CausesAnswer.vue';
import CauseTable from './CauseTable.vue';
import FoundPane from './FoundPane.vue';
import LearnedPane from './LearnedPane.vue';
import MeasuredPane from './MeasuredPane.vue';
import NextPane from './NextPane.vue';
import RecordPane from './RecordPane.vue';
import { provideReview } from './review.ts';

defineProps<{ stage: Stage; minute: number | null }>();
const route = useRoute();
const router = useRouter();
const work = useCard();
provideReview();

const panes = [
  { value: 'found', label: 'Found' },
  { value: 'measured', label: 'Measured' },
  { value: 'learned', label: 'Learned' },
  { value: 'next', label: 'Next time' },
  { value: 'record', label: 'Record' },
  { value: 'table', label: 'How causes are told' },
] as const;
type Pane = (typeof panes)[number]['value'];
const pane = computed<Pane>(() => panes.find(({ value }) => value === route.query.pane)?.value ?? 'found');
const show = (value: Pane) =>
  void router.replace({ query: { ...route.query, pane: value === 'found' ? undefined : value } });
</script>

<template>
  <StageShell class="review-stage" :question="stage.question">
    <template #tools>
      <Tabs class="tools" label="Review" :model-value="pane" :tabs="[...panes]" @update:model-value="show" />
    </template>
    <RunBar />
    <p v-if="!work.laid" class="quiet">{{ work.message ?? 'Fetching the plan it was made by …' }}</p>
    <template v-else>
      <MeasuredPane v-if="pane === 'measured'" />
      <LearnedPane v-else-if="pane === 'learned'" />
      <NextPane v-else-if="pane === 'next'" />
      <RecordPane v-else-if="pane === 'record'" />
      <CauseTable v-else-if="pane === 'table'" />
      <FoundPane v-else />
    </template>
    <template #answer><CausesAnswer /></template>
  </StageShell>
</template>
