<script setup lang="ts">
import type { JobResult } from '@wick/contract/job/result';
import { provide, watch } from 'vue';
import { createDesk, deskKey } from '../../compute/use-desk.ts';
import { api, NotReached } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { ownName } from '../../data/own-name.ts';
import { stream } from '../../data/stream.ts';
import type { JobSession } from '../../session/job-session.ts';
import { createRunSession } from '../../session/run-session.ts';
import { scheduler } from './sessions.ts';
import { laterComponent } from '../../ui/later.ts';
import { fetchRest } from '../../ui/leisure.ts';

/** Fetched when two versions meet. */
const ConflictDialog = laterComponent(() => import('./ConflictDialog.vue'));

/** Everything about one open job, for the pages under it. */
const props = defineProps<{ session: JobSession }>();
const { id } = props.session;
const run = createRunSession(id, {
  ...{ stream, storage: localStorage, name: ownName },
  listRuns: api.listRuns,
  listEntries: api.listEntries,
  addRun: api.addRun,
  send: api.addEntries,
  isNotReached: (error) => error instanceof NotReached,
});
void run.load();
const desk = createDesk(props.session, {
  run,
  shop: useShopStore(),
  library: useLibraryStore(),
  scheduler,
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
    if (stands) void fetchRest();
  },
  { immediate: true },
);
</script>

<template>
  <RouterView />
  <ConflictDialog v-if="session.conflict.value !== null" />
</template>
