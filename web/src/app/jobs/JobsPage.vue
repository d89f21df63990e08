<script setup lang="ts">
import { hasFront, processOf } from '@wick/plan/processes/processes';
import { MAX_FILE_BYTES, type JobListItem } from '@wick/contract/api';
import { formatClock } from '@wick/core/units/format';
import { bandTones, bandWords, endName } from '@wick/plan/forecast/words';
import Button from 'ant-design-vue/es/button';
import Checkbox from 'ant-design-vue/es/checkbox';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../data/api.ts';
import PageHeader from '../PageHeader.vue';
import PlanThumbnail from './PlanThumbnail.vue';
import { laterComponent } from '../../ui/later.ts';
import Choice from '../../ui/Choice.vue';

const EarlierVersions = laterComponent(() => import('./EarlierVersions.vue'));
const NewJobDialog = laterComponent(() => import('./NewJobDialog.vue'));

const router = useRouter();
/** The dialog for a new job is open. */
const isStarting = ref(false);
const jobs = shallowRef<JobListItem[] | null>(null);
const message = ref<string | null>(null);
const search = ref('');
const showsArchived = ref(false);
const order = ref<'changed' | 'name' | 'process'>('changed');
/** The job deleted last, for as long as the page is open. */
const deleted = shallowRef<{ id: string; name: string } | null>(null);
/** The job whose earlier versions are shown. */
const lookedBack = shallowRef<JobListItem | null>(null);
const file = ref<HTMLInputElement | null>(null);
const orders = [
  { value: 'changed', label: 'last changed first' },
  { value: 'name', label: 'by name' },
  { value: 'process', label: 'by process' },
];

const archivedCount = computed(() => (jobs.value ?? []).filter(({ isArchived }) => isArchived).length);
const shown = computed(() => {
  const wanted = search.value.trim().toLowerCase();
  const matches = (job: JobListItem) => `${job.name} ${processOf(job).name}`.toLowerCase().includes(wanted);
  const list = (jobs.value ?? []).filter((job) => job.isArchived === showsArchived.value && matches(job));
  const key = (job: JobListItem) => (order.value === 'process' ? processOf(job).name : job.name);
  return order.value === 'changed' ? list : [...list].sort((a, b) => key(a).localeCompare(key(b)));
});

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
/** The list as it is now, with what was said kept. */
async function reload() {
  const said = message.value;
  await load();
  message.value ??= said;
}
onMounted(load);

async function importFile(chosen: File | undefined) {
  if (!chosen) return;
  if (chosen.size > MAX_FILE_BYTES) {
    message.value = `“${chosen.name}” is larger than 4 MB; a job file never is. Check that it is the right one.`;
    return;
  }
  const job = await attempt(async () => api.importJob(await chosen.text()));
  if (file.value) file.value.value = '';
  if (job) void router.push(`/jobs/${job.id}/lines`);
  else message.value = `“${chosen.name}” was not imported. ${message.value}`;
}

const duplicate = async (id: string) => (await attempt(() => api.addJob({ copyOf: id }))) && load();
/** The same part for the other side: plan, lines and fibres mirrored. */
const copyOtherHand = async (id: string) =>
  (await attempt(() => api.addJob({ copyOf: id, mirrored: true }))) && load();
async function setArchived(job: JobListItem) {
  await attempt(() => api.archiveJob(job.id, job.revision, !job.isArchived));
  await reload();
}
async function remove({ id, name, revision }: JobListItem) {
  const done = await attempt(async () => {
    await api.removeJob(id, revision);
    return true;
  });
  if (done) deleted.value = { id, name };
  await reload();
}
async function bringBack() {
  const gone = deleted.value;
  if (!gone) return;
  if (await attempt(() => api.restoreJob(gone.id))) deleted.value = null;
  await reload();
}
async function takeBack({ revision }: { revision: number }) {
  const job = lookedBack.value;
  lookedBack.value = null;
  if (job) await attempt(() => api.takeBack(job.id, job.revision, revision));
  await reload();
}
function verdictWords({ outcome, isStale, isDamaged, process }: JobListItem): {
  text: string;
  tone: string;
} {
  if (isDamaged) return { text: 'cannot be read: take an earlier version back', tone: 'ember' };
  if (!outcome)
    return {
      text: hasFront({ process }) ? 'no forecast yet' : 'wetted by hand, no front',
      tone: 'quiet',
    };
  const old = isStale ? ', before the last change' : '';
  const times =
    outcome.fillTime === null
      ? `${endName(outcome)} at ${formatClock(outcome.gelTime)}`
      : `last corner ${formatClock(outcome.fillTime)}, ${endName(outcome)} ${formatClock(outcome.gelTime)}`;
  return { text: `${bandWords[outcome.band]} · ${times}${old}`, tone: bandTones[outcome.band] };
}
</script>

<template>
  <div class="page">
    <PageHeader />
    <NewJobDialog v-if="isStarting" @close="isStarting = false" />
    <EarlierVersions
      v-if="lookedBack"
      :id="lookedBack.id"
      :name="lookedBack.name"
      :current="null"
      @close="lookedBack = null"
      @take="takeBack"
    />
    <main>
      <div class="tools head">
        <h1>Jobs</h1>
        <Input
          v-model:value="search"
          placeholder="Search name or process"
          aria-label="Search name or process"
          class="search"
          allow-clear
        />
        <Choice v-model:value="order" :options="orders" aria-label="Order of the jobs" class="order" />
        <Checkbox v-model:checked="showsArchived">Archived ({{ archivedCount }})</Checkbox>
        <span class="space" />
        <Button type="primary" @click="isStarting = true">New job</Button>
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
      <p v-if="deleted" role="status" class="gone">
        “{{ deleted.name }}” is deleted.
        <Button size="small" @click="bringBack">Bring it back</Button>
      </p>
      <p v-if="jobs === null && !message" class="quiet">Fetching the jobs …</p>
      <Button v-if="jobs === null && message" @click="load">Try again</Button>
      <p v-else-if="jobs?.length === 0" class="quiet">
        No jobs yet. Start a new one, or drop a job file anywhere on this page.
      </p>
      <p v-else-if="jobs && shown.length === 0" class="quiet">
        {{
          search
            ? `No job has “${search}” in its name or process.`
            : showsArchived
              ? 'Nothing is archived.'
              : 'All jobs are archived.'
        }}
      </p>
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
            <td><PlanThumbnail :sketch="job.sketch" /></td>
            <td>
              <RouterLink :to="`/jobs/${job.id}/${hasFront(job) ? 'lines' : 'part'}`" class="name">{{
                job.name
              }}</RouterLink>
            </td>
            <td>{{ processOf(job).name }}</td>
            <td :class="verdictWords(job).tone">{{ verdictWords(job).text }}</td>
            <td class="number">
              {{ new Date(job.changedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) }}
            </td>
            <td class="actions">
              <Button size="small" type="text" @click="duplicate(job.id)">Duplicate</Button>
              <Button size="small" type="text" @click="copyOtherHand(job.id)">Other hand</Button>
              <Button size="small" type="text" @click="lookedBack = job">Earlier</Button>
              <a :href="api.jobFile(job.id)" download>Export</a>
              <Button size="small" type="text" @click="setArchived(job)">{{
                job.isArchived ? 'Take out of the archive' : 'Archive'
              }}</Button>
              <Button size="small" type="text" danger @click="remove(job)">Delete</Button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet hint">
        Drop a file anywhere: job files become jobs, library tables go to the library, and drawings to the job
        that is open.
      </p>
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
.head {
  margin-bottom: 14px;
  align-items: center;
}
.order {
  width: 170px;
}
.gone {
  font: 600 15px var(--display);
}
.search {
  width: 220px;
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
