<script setup lang="ts">
import type { NewJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { Patch } from '@wick/core/geometry/overlay';
import { processes } from '@wick/plan/processes/processes';
import Input from 'ant-design-vue/es/input';
import Modal from 'ant-design-vue/es/modal';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../data/api.ts';
import { incomingDrawing } from '../../data/incoming.ts';
import ShapeFields from '../../stages/part/ShapeFields.vue';
import Choice from '../../ui/Choice.vue';
import Tabs from '../../ui/Tabs.vue';

/** A new job: its name, how it is made, and the part's shape by a few numbers or from a drawing. */
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const name = ref('');
const process = ref<Job['process']>('infusion');
const source = ref<'shape' | 'drawing'>('shape');
const patch = shallowRef<Patch | null>(null);
const drawing = shallowRef<File | null>(null);
const file = ref<HTMLInputElement | null>(null);
const message = ref<string | null>(null);
const isStarting = ref(false);

const processOptions = Object.entries(processes).map(([value, { name: label }]) => ({ value, label }));
const sources = [
  { value: 'shape' as const, label: 'By its size' },
  { value: 'drawing' as const, label: 'From a drawing' },
];
const isReady = computed(() => (source.value === 'shape' ? patch.value !== null : drawing.value !== null));
const stem = (fileName: string) => fileName.replace(/\.[^.]*$/, '');
const wanted = computed((): NewJob => {
  const called =
    name.value.trim() || (source.value === 'drawing' && drawing.value ? stem(drawing.value.name) : '');
  const job = { name: (called || 'New job').slice(0, 80), process: process.value };
  if (source.value === 'drawing' || !patch.value) return job;
  const { outline, holes } = patch.value;
  return { ...job, outline: [...outline], holes: holes.map((hole) => [...hole]) };
});

async function start() {
  if (!isReady.value || isStarting.value) return;
  isStarting.value = true;
  try {
    const { id } = await api.addJob(wanted.value);
    // The Part stage asks which of its layers are what.
    if (source.value === 'drawing') incomingDrawing.value = drawing.value;
    await router.push(`/jobs/${id}/part`);
  } catch (error) {
    message.value = (error as Error).message;
  } finally {
    isStarting.value = false;
  }
}
</script>

<template>
  <Modal
    transition-name=""
    mask-transition-name=""
    open
    title="A new job"
    width="460px"
    ok-text="Start the job"
    cancel-text="Not now"
    :ok-button-props="{ disabled: !isReady, loading: isStarting }"
    @ok="start"
    @cancel="emit('close')"
  >
    <form class="fields" @submit.prevent="start">
      <label>
        <span class="quiet">Name</span>
        <Input v-model:value="name" :maxlength="80" placeholder="New job" autofocus />
      </label>
      <label>
        <span class="quiet">Process</span>
        <Choice v-model:value="process" :options="processOptions" aria-label="Process" class="process" />
      </label>
      <Tabs v-model="source" label="Where the part’s shape comes from" :tabs="sources" />
      <div v-if="source === 'shape'" class="shape"><ShapeFields v-model="patch" /></div>
      <div v-else class="drawing">
        <button type="button" class="plain choose-file" @click="file?.click()">
          {{ drawing ? drawing.name : 'Choose a DXF, SVG or GeoJSON file' }}
        </button>
        <input
          ref="file"
          type="file"
          accept=".dxf,.svg,.geojson"
          hidden
          aria-label="Drawing of the part"
          @change="drawing = file?.files?.[0] ?? null"
        />
        <p class="quiet">Its layers, unit and gaps are asked for once the job is open.</p>
      </div>
      <p v-if="message" class="ember" role="alert">{{ message }}</p>
      <button type="submit" hidden></button>
    </form>
  </Modal>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
.process {
  width: 100%;
}
.shape {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 16px;
  min-height: 170px;
  align-content: start;
}
.drawing {
  min-height: 170px;
}
.choose-file {
  text-decoration: underline;
}
</style>
