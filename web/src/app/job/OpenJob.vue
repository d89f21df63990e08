<script setup lang="ts">
import { inject, provide } from 'vue';
import { createDesk, deskKey } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { JobSession } from '../../session/job-session.ts';
import { schedulerKey } from '../sessions.ts';
import ConflictDialog from './ConflictDialog.vue';

/** Everything about one open job, for the pages under it. */
const props = defineProps<{ session: JobSession }>();
const { id } = props.session;
provide(
  deskKey,
  createDesk(props.session, {
    shop: useShopStore(),
    library: useLibraryStore(),
    scheduler: inject(schedulerKey)!,
    results: {
      read: () => api.listResults(id),
      keep: (results) => api.keepResults(id, results),
    },
  }),
);
</script>

<template>
  <RouterView />
  <ConflictDialog />
</template>
