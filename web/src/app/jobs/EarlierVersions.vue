<script setup lang="ts">
import type { JobRevision, StoredJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import { differencesOf } from '@wick/plan/job/differences';
import { laidOut } from '@wick/plan/job/laid';
import { planSketchOf } from '@wick/plan/part/sketch';
import Button from 'ant-design-vue/es/button';
import Modal from 'ant-design-vue/es/modal';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';
import PlanThumbnail from './PlanThumbnail.vue';

/** Earlier versions of a job: when each was left, its plan, and in what it differs; one is taken back. */
const props = defineProps<{
  id: string;
  name: string;
  /** What the job is now, where that is known. */
  current: Job | null;
}>();
const emit = defineEmits<{ close: []; take: [earlier: StoredJob] }>();
const MOST = 10;
const versions = shallowRef<readonly JobRevision[] | null>(null);
const looked = shallowRef<StoredJob | null>(null);
const message = ref<string | null>(null);

const differences = computed(() =>
  looked.value && props.current ? differencesOf(props.current, looked.value.document) : [],
);
const when = (at: string) => new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'medium' });

async function attempt(action: () => Promise<void>) {
  message.value = null;
  await action().catch((error: unknown) => (message.value = (error as Error).message));
}
const look = (revision: number) =>
  attempt(async () => void (looked.value = await api.getRevision(props.id, revision)));
onMounted(() =>
  attempt(async () => {
    versions.value = await api.listRevisions(props.id);
    if (versions.value[0]) await look(versions.value[0].revision);
  }),
);
</script>

<template>
  <Modal
    transition-name=""
    mask-transition-name=""
    open
    :title="`Earlier versions of ${name}`"
    width="720px"
    @cancel="emit('close')"
  >
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
    <p v-if="versions?.length === 0" class="quiet">
      There are none yet: every saved change leaves the version before it here.
    </p>
    <div v-else-if="versions" class="two">
      <ul class="list" aria-label="Earlier versions, newest first">
        <li v-for="{ revision, changedAt } in versions" :key="revision">
          <button
            type="button"
            :class="['plain', { chosen: looked?.revision === revision }]"
            :aria-pressed="looked?.revision === revision"
            @click="look(revision)"
          >
            {{ when(changedAt) }}
          </button>
        </li>
      </ul>
      <div v-if="looked" data-testid="looked">
        <PlanThumbnail :sketch="planSketchOf(laidOut(looked.document))" />
        <p>{{ looked.document.name }}</p>
        <template v-if="current">
          <p class="quiet">
            {{ differences.length === 0 ? 'The same as the job is now.' : 'Unlike the job as it is now:' }}
          </p>
          <ul>
            <li v-for="({ where, what }, i) in differences.slice(0, MOST)" :key="i">
              <span v-if="where" class="quiet">{{ where }} › </span>{{ what }}
            </li>
            <li v-if="differences.length > MOST" class="quiet">and {{ differences.length - MOST }} more</li>
          </ul>
        </template>
      </div>
    </div>
    <template #footer>
      <span v-if="versions?.length" class="quiet note"
        >What the job is now stays among its earlier versions.</span
      >
      <Button @click="emit('close')">Leave it</Button>
      <Button type="primary" :disabled="!looked" @click="looked && emit('take', looked)"
        >Take this one back</Button
      >
    </template>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 20px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 320px;
  overflow: auto;
}
.list button {
  width: 100%;
  text-align: left;
  padding: 4px 8px;
}
.chosen {
  background: #f2dfb4;
}
.note {
  float: left;
  padding-top: 5px;
}
</style>
