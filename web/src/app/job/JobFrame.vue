<script setup lang="ts">
import { onBeforeUnmount, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import type { JobSession } from '../../session/job-session.ts';
import { sessions } from './sessions.ts';
import OpenJob from './OpenJob.vue';

/** Owns the session of the job in the address; every page under it shares document, undo and forecast. */
const route = useRoute();
const shop = useShopStore();
const library = useLibraryStore();
const session = shallowRef<JobSession | null>(null);
const failure = shallowRef<string | null>(null);
/** The job that is wanted now: an answer for another one comes too late. */
let wanted = '';

function leave() {
  if (session.value) void sessions.leave(session.value);
  session.value = null;
}

watch(
  () => String(route.params.id),
  async (id) => {
    if (route.params.id === undefined) return;
    wanted = id;
    leave();
    failure.value = null;
    try {
      await Promise.all([shop.load(), library.load()]);
      const opened = await sessions.open(id);
      if (wanted === id) session.value = opened;
      else void sessions.leave(opened);
    } catch (error) {
      if (wanted === id) failure.value = (error as Error).message;
    }
  },
  { immediate: true },
);
onBeforeUnmount(() => {
  wanted = '';
  leave();
});
</script>

<template>
  <OpenJob v-if="session" :key="session.id" :session="session" />
  <main v-else class="empty">
    <template v-if="failure">
      <p>{{ failure }}</p>
      <RouterLink to="/">Back to the jobs</RouterLink>
    </template>
    <p v-else class="quiet">Opening the job …</p>
  </main>
</template>

<style scoped>
.empty {
  padding: 40px 24px;
}
</style>
