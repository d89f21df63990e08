<script setup lang="ts">
import { placesOf, type SectionPlace } from '@wick/plan/stack/section';
import { computed, ref } from 'vue';
import { useSession, useStackChecks } from '../../compute/use-desk.ts';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import type { Stage } from '../stage.ts';
import EdgeSection from './EdgeSection.vue';
import LayerPlan from './LayerPlan.vue';
import LayerTable from './LayerTable.vue';
import StackAnswer from './StackAnswer.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useSession();
const checks = useStackChecks();
const selected = ref<string | null>(null);
const wanted = ref<SectionPlace>('edge');
const words: Record<SectionPlace, string> = {
  edge: 'Plain edge',
  feed: 'At a feed',
  vent: 'At the vent',
};
const places = computed(() => placesOf(job.laid));
const place = computed(() => (places.value.includes(wanted.value) ? wanted.value : 'edge'));
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Tabs
        class="tools"
        label="Section"
        :model-value="place"
        :tabs="places.map((value) => ({ value, label: words[value] }))"
        @update:model-value="wanted = $event"
      />
    </template>
    <p v-if="job.laid.layers.length === 0" class="empty">
      Nothing lies on the plies yet: no peel ply, no mesh, no bag. Lay a stack to start from, or add layers
      one by one.
    </p>
    <div v-else class="top">
      <EdgeSection :place="place" :selected="selected" @select="selected = $event" />
      <LayerPlan :selected="selected" />
    </div>
    <LayerTable :selected="selected" @select="selected = $event" />
    <template #answer>
      <StackAnswer :breaks="checks.breaks" @select="selected = $event" />
    </template>
  </StageShell>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 20px;
  margin-top: 8px;
}
.empty {
  max-width: 520px;
  font-size: 16px;
  margin: 40px 0;
}
</style>
