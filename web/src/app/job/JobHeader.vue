<script setup lang="ts">
import type { StoredJob } from '@wick/contract/api';
import { useSession } from '../../compute/use-desk.ts';
import { withName } from '@wick/plan/job/edits';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { api } from '../../data/api.ts';
import { laterComponent } from '../../ui/later.ts';
import PageHeader from '../PageHeader.vue';

const EarlierVersions = laterComponent(() => import('../jobs/EarlierVersions.vue'));

const emit = defineEmits<{ help: [] }>();
const job = useSession();
const editing = ref<string | null>(null);
const looksBack = ref(false);

const saved = computed(() => {
  const time = job.savedAt.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  return {
    saved: `saved ${time}`,
    saving: 'saving …',
    waiting: 'saving …',
    offline: 'not saved yet: the server does not answer',
    refused: `not saved: ${job.saveMessage}`,
    conflict: 'changed elsewhere',
  }[job.saveState];
});
const isTrouble = computed(() => ['offline', 'refused', 'conflict'].includes(job.saveState));

function takeBack({ document, changedAt }: StoredJob) {
  looksBack.value = false;
  job.apply(() => document, `back to ${new Date(changedAt).toLocaleTimeString()}`);
}

function rename() {
  const name = editing.value?.trim();
  editing.value = null;
  if (name && name !== job.document.name) job.apply(withName(name.slice(0, 80)), 'name');
}
</script>

<template>
  <PageHeader>
    <input
      v-if="editing !== null"
      v-model="editing"
      class="name"
      aria-label="Name of the job"
      maxlength="80"
      @keydown.enter="rename"
      @keydown.esc="editing = null"
      @blur="rename"
    />
    <button v-else class="plain name" title="Rename" @click="editing = job.document.name">
      {{ job.document.name }}
    </button>
    <span :class="['saved', isTrouble ? 'ember' : 'quiet']" role="status" data-testid="save-state">{{
      saved
    }}</span>
    <Button size="small" type="text" title="Earlier versions of this job" @click="looksBack = true"
      >Earlier</Button
    >
    <EarlierVersions
      v-if="looksBack"
      :id="job.id"
      :name="job.document.name"
      :current="job.document"
      @close="looksBack = false"
      @take="takeBack"
    />
    <Button
      size="small"
      type="text"
      :disabled="!job.canUndo"
      :title="job.undoLabel ?? undefined"
      @click="job.undo()"
      >Undo</Button
    >
    <Button
      size="small"
      type="text"
      :disabled="!job.canRedo"
      :title="job.redoLabel ?? undefined"
      @click="job.redo()"
      >Redo</Button
    >
    <a :href="api.jobFile(job.id)" download>Export</a>
    <button class="plain help" aria-label="Keys" @click="emit('help')">?</button>
  </PageHeader>
</template>

<style scoped>
.name {
  font: 600 17px var(--display);
  white-space: nowrap;
}
input.name {
  border: 0;
  border-bottom: 2px solid var(--resin);
  background: none;
}
.saved {
  font-size: 13px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 300px;
}
.help {
  font: 600 16px var(--display);
  padding: 0 6px;
}
</style>
