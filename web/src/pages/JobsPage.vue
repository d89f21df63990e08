<script setup lang="ts">
import type { JobListItem } from '@wick/contract/api';
import { formatClock } from '@wick/core/units/format';
import { bandWords } from '@wick/contract/words';
import { Button, Input, Popconfirm } from 'ant-design-vue';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import PageHeader from '../ui/PageHeader.vue';
import PlanThumbnail from '../ui/PlanThumbnail.vue';

const router = useRouter();
const jobs = shallowRef<JobListItem[] | null>(null);
const message = ref<string | null>(null);
const search = ref('');
const isOver = ref(false);
const file = ref<HTMLInputElement | null>(null);
const processWords = {
  infusion: 'infusion',
  wetLayup: 'bagged wet layup',
  closedMould: 'closed mould',
  bonding: 'core bonding',
};

const shown = computed(() =>
  (jobs.value ?? []).filter((job) => job.name.toLowerCase().includes(search.value.trim().toLowerCase())),
);

async function attempt<T>(action: () => Promise<T>): Promise<T | undefined> {
  try {
    message.value = null;
    return await action();
  } catch (error) {
    message.value = (error as Error).message;
    return undefined;
  }
}
const load = () => attempt(async () => (jobs.value = await api.listJobs()));
onMounted(load);

async function create() {
  const job = await attempt(() => api.createJob('New job'));
  if (job) void router.push(`/jobs/${job.id}/part`);
}

async function importFile(chosen: File | undefined) {
  isOver.value = false;
  if (!chosen) return;
  if (chosen.size > 4_000_000) {
    message.value = `“${chosen.name}” is larger than 4 MB; a job file never is. Check that it is the right one.`;
    return;
  }
  const job = await attempt(async () => api.importJob(await chosen.text()));
  if (file.value) file.value.value = '';
  if (job) void router.push(`/jobs/${job.id}/lines`);
  else message.value = `“${chosen.name}” was not imported. ${message.value}`;
}

const duplicate = async (id: string) => (await attempt(() => api.duplicateJob(id))) && load();
const remove = async (id: string) => {
  await attempt(() => api.removeJob(id));
  void load();
};
function verdictWords({ verdict, revision }: JobListItem): { text: string; tone: string } {
  if (!verdict) return { text: 'no forecast yet', tone: 'quiet' };
  const old = verdict.revision === revision ? '' : ', before the last change';
  const times =
    verdict.fillTime === null
      ? `gel at ${formatClock(verdict.gelTime)}`
      : `last corner ${formatClock(verdict.fillTime)}, gel ${formatClock(verdict.gelTime)}`;
  return {
    text: `${bandWords[verdict.band]} · ${times}${old}`,
    tone: ['comfortable', 'tight'].includes(verdict.band) ? 'moss' : 'ember',
  };
}
</script>

<template>
  <div
    class="page"
    @dragover.prevent="isOver = true"
    @dragleave.self="isOver = false"
    @drop.prevent="importFile($event.dataTransfer?.files[0])"
  >
    <PageHeader />
    <main :class="{ over: isOver }">
      <div class="tools head">
        <h1>Jobs</h1>
        <Input
          v-model:value="search"
          placeholder="Search by name"
          aria-label="Search by name"
          class="search"
          allow-clear
        />
        <Button type="primary" @click="create">New job</Button>
        <Button @click="file?.click()">Import a job file</Button>
        <input
          ref="file"
          type="file"
          accept=".json,application/json"
          hidden
          data-testid="import"
          @change="importFile(file?.files?.[0])"
        />
      </div>
      <p v-if="message" class="ember" role="alert" data-testid="message">{{ message }}</p>
      <p v-if="jobs === null && !message" class="quiet">Fetching the jobs …</p>
      <Button v-if="jobs === null && message" @click="load">Try again</Button>
      <p v-else-if="jobs?.length === 0" class="quiet">
        No jobs yet. Start a new one, or drop a job file anywhere on this page.
      </p>
      <p v-else-if="jobs && shown.length === 0" class="quiet">No job has “{{ search }}” in its name.</p>
      <table v-if="shown.length > 0" class="sheet">
        <thead>
          <tr>
            <th>Plan</th>
            <th>Job</th>
            <th>Process</th>
            <th>Last forecast</th>
            <th>Changed</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="job in shown" :key="job.id">
            <td><PlanThumbnail :outline="job.outline" /></td>
            <td>
              <RouterLink :to="`/jobs/${job.id}/lines`" class="name">{{ job.name }}</RouterLink>
            </td>
            <td>{{ processWords[job.process] }}</td>
            <td :class="verdictWords(job).tone">{{ verdictWords(job).text }}</td>
            <td class="number">
              {{ new Date(job.changedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) }}
            </td>
            <td class="actions">
              <Button size="small" type="text" @click="duplicate(job.id)">Duplicate</Button>
              <a :href="api.jobFile(job.id)" download>Export</a>
              <Popconfirm
                :title="`Delete “${job.name}”? Export it first if you may want it back.`"
                ok-text="Delete"
                cancel-text="Keep"
                @confirm="remove(job.id)"
              >
                <Button size="small" type="text" danger>Delete</Button>
              </Popconfirm>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet hint">A job file can be dropped anywhere on this page.</p>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
}
main {
  padding: 18px 24px;
  max-width: 1280px;
}
.over {
  outline: 3px dashed var(--resin);
  outline-offset: -8px;
}
.head {
  margin-bottom: 14px;
}
.search {
  width: 240px;
  margin-left: 18px;
}
td {
  vertical-align: middle !important;
}
.name {
  font: 600 17px var(--display);
  color: var(--ink);
}
.actions {
  white-space: nowrap;
  text-align: right;
}
.hint {
  margin-top: 16px;
}
</style>
