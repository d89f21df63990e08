<script setup lang="ts">
import { provide, watch } from 'vue';
import { createDesk, deskKey } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { JobSession } from '../../session/job-session.ts';
import { scheduler } from './sessions.ts';
import { laterComponent } from '../../ui/later.ts';
import { fetchRest } from '../../ui/leisure.ts';

/** Fetched when two versions meet. */
const ConflictDialog = laterComponent(() => import('./ConflictDialog.vue'));

/** Everything about one open job, for the pages under it. */
const props = defineProps<{ session: JobSession }>();
const { id } = props.session;
const desk = createDesk(props.session, {
  shop: useShopStore(),
  library: useLibraryStore(),
  scheduler,
  results: {
    read: () => api.listResults(id),
    keep: (results) => api.keepResults(id, results),
  },
});
provide(deskKey, desk);
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
