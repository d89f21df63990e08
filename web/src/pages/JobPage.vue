<script setup lang="ts">
import { assumptionsOf, isWettedByHand } from '@wick/contract/forecast-input';
import { Modal } from 'ant-design-vue';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import Fuse from '../fuse/Fuse.vue';
import { stages } from '../stages/stages.ts';
import { useForecastStore } from '../state/forecast-store.ts';
import { useJobStore } from '../state/job-store.ts';
import { useLibraryStore } from '../state/library-store.ts';
import { useShopStore } from '../state/shop-store.ts';
import JobHeader from './JobHeader.vue';
import ConflictDialog from './ConflictDialog.vue';
import ShortcutSheet from './ShortcutSheet.vue';
import { useShortcuts } from './shortcuts.ts';

const route = useRoute();
const router = useRouter();
const job = useJobStore();
const shop = useShopStore();
const library = useLibraryStore();
const forecast = useForecastStore();
const failure = ref<string | null>(null);
const showKeys = ref(false);

const stage = computed(() => stages.find((item) => item.id === route.params.stage) ?? stages[3]!);
/** The scrubbed minute lives in the address, so that it can be sent to someone. */
const minute = ref<number | null>(null);
const inAddress = () =>
  typeof route.query.t === 'string' && Number.isFinite(Number(route.query.t))
    ? Number(route.query.t) * 60
    : null;
const SETTLE = 250;
let settling: ReturnType<typeof setTimeout> | undefined;
watch(inAddress, (time) => (minute.value = time), { immediate: true });
// The address follows when the hand, or the playback, rests.
watch(minute, (time) => {
  clearTimeout(settling);
  const query = { ...route.query, t: time === null ? undefined : String(Math.round(time / 6) / 10) };
  settling = setTimeout(() => {
    if (inAddress() !== time) void router.replace({ query });
  }, SETTLE);
});
onBeforeUnmount(() => clearTimeout(settling));
const signs = computed(() =>
  stages.map(({ id, later }) => {
    if (later) return { state: 'later', text: 'not yet' };
    if (id === 'lines' && job.document && isWettedByHand(job.document))
      return { state: 'later', text: 'none here' };
    const open = forecast.missing.filter((item) => item.stage === id).length;
    const assumed = job.document
      ? assumptionsOf(job.document, shop.shop).filter((item) => item.stage === id).length
      : 0;
    if (open > 0) return { state: 'open', text: 'open' };
    return assumed > 0 ? { state: 'assumed', text: `${assumed} assumed` } : { state: 'done', text: '' };
  }),
);
const go = (index: number) =>
  void router.push({ path: `/jobs/${String(route.params.id)}/${stages[index]!.id}`, query: route.query });

watch(
  () => String(route.params.id),
  async (id) => {
    failure.value = null;
    try {
      await Promise.all([shop.load(), library.load()]);
      await job.open(id);
    } catch (error) {
      failure.value = (error as Error).message;
    }
  },
  { immediate: true },
);
useShortcuts({ go, undo: job.undo, redo: job.redo, help: () => (showKeys.value = !showKeys.value) });
onBeforeUnmount(job.close);
</script>

<template>
  <div class="page">
    <JobHeader @help="showKeys = true" />
    <nav aria-label="Stages">
      <button
        v-for="(item, index) in stages"
        :key="item.id"
        :class="['plain', 'tab', signs[index]!.state, { here: item.id === stage.id }]"
        :aria-current="item.id === stage.id ? 'page' : undefined"
        @click="go(index)"
      >
        <span class="key">{{ index + 1 }}</span> {{ item.name }}
        <span class="sign">{{ signs[index]!.text }}</span>
      </button>
    </nav>
    <main v-if="job.document">
      <component :is="stage.component" :key="stage.id" :stage="stage" :minute="minute" />
    </main>
    <main v-else class="empty">
      <template v-if="failure">
        <p>{{ failure }}</p>
        <RouterLink to="/">Back to the jobs</RouterLink>
      </template>
      <p v-else class="quiet">Opening the job …</p>
    </main>
    <Fuse v-if="job.document" v-model="minute" />
    <ConflictDialog />
    <Modal v-model:open="showKeys" title="Keys" :footer="null"><ShortcutSheet /></Modal>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  overflow: hidden;
  display: flex;
  flex-direction: column;
}
nav {
  display: flex;
  gap: 14px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
}
.tab {
  flex: 1;
  padding: 8px 0 9px;
  border-top: 3px solid transparent;
  font: 500 15px var(--display);
  white-space: nowrap;
  overflow: hidden;
}
.tab.done {
  border-top-color: var(--moss);
}
.tab.assumed {
  border-top: 3px dotted var(--resin);
}
.tab.open {
  border-top: 3px dotted var(--ember);
}
.tab.later {
  color: var(--quiet);
}
.tab.here {
  background: linear-gradient(var(--sheet), var(--sheet));
  font-weight: 600;
  box-shadow: inset 0 -3px var(--ink);
}
.key,
.sign {
  font: 400 12px var(--text);
  color: var(--quiet);
}
main {
  flex: 1;
  min-height: 0;
}
.empty {
  padding: 40px 24px;
}
</style>
