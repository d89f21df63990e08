<script setup lang="ts">
import type { JobResult } from '@wick/contract/job/result';
import { onUnmounted, provide, watch } from 'vue';
import { createDesk, deskKey } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useStepsStore } from '../../data/steps-store.ts';
import { ownName } from '../../data/own-name.ts';
import { stream } from '../../data/stream.ts';
import type { JobSession } from '../../session/job-session.ts';
import { createRunSession } from '../../session/run-session.ts';
import { copies, outbox } from '../outbox.ts';
import { firstViewStands } from '../offline.ts';
import { scheduler } from './sessions.ts';
import { keepForLater } from '../../data/keep-for-later.ts';
import { lookedAt } from '../../data/looked-at.ts';
import { laterComponent } from '../../ui/later.ts';

/** Fetched when two versions meet. */
const ConflictDialog = laterComponent(() => import('./ConflictDialog.vue'));

/** Everything about one open job, for the pages under it. */
const props = defineProps<{ session: JobSession }>();
const { id } = props.session;
const run = createRunSession(id, {
  ...{ stream, outbox, copies, name: ownName },
  lookedAt: {
    read: () => lookedAt.read(id),
    keep: (runId) => lookedAt.keep(id, runId),
  },
  listRuns: api.listRuns,
  listEntries: api.listEntries,
  async addRun(jobId, made) {
    await whenSaved();
    return api.addRun(jobId, made);
  },
});
/** A run is made by what is saved: what is on its way to the server goes first. */
function whenSaved(): Promise<void> {
  const { saveState } = props.session;
  const isOnItsWay = () => saveState.value === 'waiting' || saveState.value === 'saving';
  return new Promise((resolve) => {
    if (!isOnItsWay()) return resolve();
    const stop = watch(saveState, () => {
      if (isOnItsWay()) return;
      stop();
      resolve();
    });
  });
}
const steps = useStepsStore();
const moulds = useMouldStore();
void run.load();
void steps.load();
if (moulds.moulds === null) void moulds.load();
const desk = createDesk(props.session, {
  run,
  shop: useShopStore(),
  library: useLibraryStore(),
  scheduler,
  plans: {
    read: api.getRunPlan,
    take: api.takeRunPlan,
    steps: () => steps.stored?.steps ?? null,
    mould: (mouldId) => moulds.find(mouldId)?.mould ?? null,
  },
  results: {
    read: () => api.listResults(id),
    keep: (results) => keepAtRevision(results),
  },
});
provide(deskKey, desk);

/** Once more where the job was saved while they were on their way. */
async function keepAtRevision(results: JobResult[]): Promise<void> {
  const revision = props.session.revision.value;
  await api.keepResults(id, revision, results).catch((error: unknown) => {
    if (props.session.revision.value === revision) throw error;
    return api.keepResults(id, props.session.revision.value, results);
  });
}
// The first view stands with its fine forecast, or without one.
watch(
  () => desk.forecast.progress === null && (desk.forecast.flow !== null || desk.forecast.message !== null),
  (stands) => {
    firstViewStands.value = stands;
    if (stands) void keepForLater();
  },
  { immediate: true },
);
onUnmounted(() => (firstViewStands.value = true));
</script>

<template>
  <RouterView />
  <ConflictDialog v-if="session.conflict.value !== null" />
</template>
