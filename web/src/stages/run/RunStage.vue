<script setup lang="ts">
import { duesOf } from '@wick/plan/card/timers';
import { computed, onScopeDispose, watchEffect } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useCard, useRun, useSession } from '../../compute/use-desk.ts';
import { localCalls } from '../../data/local-calls.ts';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import { useAwake } from '../../ui/use-awake.ts';
import RunBar from '../common/RunBar.vue';
import type { Stage } from '../stage.ts';
import CardPane from './CardPane.vue';
import ClockPanel from './ClockPanel.vue';
import CurePane from './CurePane.vue';
import GelCoatPane from './GelCoatPane.vue';
import HoldList from './HoldList.vue';
import InfusePane from './InfusePane.vue';
import InfusionAnswer from './InfusionAnswer.vue';
import LayUpPane from './LayUpPane.vue';
import LightSwitch from './LightSwitch.vue';
import LogPane from './LogPane.vue';
import { provideLive } from './live.ts';
import NewerPlan from './NewerPlan.vue';
import PrepPane from './PrepPane.vue';
import WarmthField from './WarmthField.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const route = useRoute();
const router = useRouter();
const job = useSession();
const run = useRun();
const work = useCard();
useAwake();

const hasGelCoat = computed(() => work.basis?.job.prep.gelCoat != null);
/** Resin is drawn through from lines, and its front can be forecast. */
const isInfused = computed(() => work.laid?.lines.some(({ kind }) => kind === 'feed') ?? false);
const panes = computed(() => [
  { value: 'card' as const, label: 'Card' },
  ...(hasGelCoat.value ? [{ value: 'gel' as const, label: 'Gel coat' }] : []),
  { value: 'lay' as const, label: 'Lay-up' },
  ...(isInfused.value ? [{ value: 'infuse' as const, label: 'Infuse' }] : []),
  { value: 'cure' as const, label: 'Cure' },
  { value: 'log' as const, label: 'Log' },
  { value: 'prep' as const, label: 'Preparation' },
]);
type Pane = 'card' | 'gel' | 'lay' | 'infuse' | 'cure' | 'log' | 'prep';
const pane = computed<Pane>(
  () => panes.value.find(({ value }) => value === route.query.pane)?.value ?? 'card',
);
provideLive(() => pane.value === 'infuse' || pane.value === 'cure');
const show = (value: Pane) =>
  void router.replace({ query: { ...route.query, pane: value === 'card' ? undefined : value } });

/** What is due is called here too, for when the server is away. */
watchEffect(() => {
  const { timers = [] } = work.progress ?? {};
  localCalls.value = duesOf(timers).map(({ timerId, what }) => ({
    ...{ timerId, what, jobId: job.id, jobName: job.document.name },
    word: timers.find(({ id }) => id === timerId)!.word,
    isRehearsal: run.rehearsalId !== null,
    part: run.rehearsalId ? 'rehearsal' : `part ${run.run?.number ?? ''}`,
  }));
});
onScopeDispose(() => (localCalls.value = []));
</script>

<template>
  <StageShell class="run-stage" :question="stage.question">
    <template #tools>
      <Tabs class="tools" label="Run" :model-value="pane" :tabs="panes" @update:model-value="show" />
      <LightSwitch />
    </template>
    <RunBar />
    <NewerPlan />
    <p v-if="!work.progress" class="quiet">{{ work.message ?? 'Fetching the card …' }}</p>
    <template v-else>
      <GelCoatPane v-if="pane === 'gel'" />
      <LayUpPane v-else-if="pane === 'lay'" />
      <InfusePane v-else-if="pane === 'infuse'" />
      <CurePane v-else-if="pane === 'cure'" />
      <LogPane v-else-if="pane === 'log'" />
      <PrepPane v-else-if="pane === 'prep'" />
      <CardPane v-else />
    </template>
    <template #answer>
      <InfusionAnswer v-if="pane === 'infuse'" />
      <template v-else>
        <ClockPanel />
        <WarmthField />
        <HoldList />
      </template>
    </template>
  </StageShell>
</template>

<style scoped>
.run-stage {
  font-size: 16px;
}
.run-stage :deep(button.ant-btn),
.run-stage :deep(button.plain.tool),
.run-stage :deep(select),
.run-stage :deep(input:not([type='checkbox'], [type='file'])) {
  min-height: 44px;
}
.run-stage :deep(button.ant-btn) {
  font-size: 16px;
}
@media (max-width: 760px) {
  /* A phone is for watching: parts and rehearsals are begun on a larger screen. */
  .run-stage :deep(.rehearse),
  .run-stage :deep(.light) {
    display: none;
  }
}
</style>
