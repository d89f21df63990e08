<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import type { Stage } from '../stage.ts';
import { provideBench } from './bench.ts';
import DropAnswer from './DropAnswer.vue';
import DropPane from './DropPane.vue';
import GaugesPane from './GaugesPane.vue';
import LeakPane from './LeakPane.vue';
import PullPane from './PullPane.vue';
import RunBar from '../common/RunBar.vue';
import StopAnswer from './StopAnswer.vue';
import StopPane from './StopPane.vue';
import WalkAnswer from './WalkAnswer.vue';
import WatchPanel from './WatchPanel.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const route = useRoute();
const router = useRouter();
provideBench();

/** The pane stands in the address, so that it can be sent to someone. */
const panes = [
  { value: 'pull', label: 'Pull-down' },
  { value: 'drop', label: 'Drop test' },
  { value: 'walk', label: 'Leak walk' },
  { value: 'stop', label: 'If the pump stops' },
  { value: 'gauges', label: 'Gauges' },
] as const;
type Pane = (typeof panes)[number]['value'];
const pane = computed<Pane>(() => panes.find(({ value }) => value === route.query.pane)?.value ?? 'drop');
const show = (value: Pane) =>
  void router.replace({ query: { ...route.query, pane: value === 'drop' ? undefined : value } });
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Tabs class="tools" label="Vacuum" :model-value="pane" :tabs="panes" @update:model-value="show" />
    </template>
    <RunBar />
    <PullPane v-if="pane === 'pull'" />
    <LeakPane v-else-if="pane === 'walk'" />
    <StopPane v-else-if="pane === 'stop'" />
    <GaugesPane v-else-if="pane === 'gauges'" />
    <DropPane v-else />
    <template #answer>
      <WalkAnswer v-if="pane === 'walk'" />
      <StopAnswer v-else-if="pane === 'stop'" />
      <DropAnswer v-else />
      <WatchPanel />
    </template>
  </StageShell>
</template>
