<script setup lang="ts">
import { MAX_FILE_BYTES } from '@wick/contract/api';
import Button from 'ant-design-vue/es/button';
import ConfigProvider from 'ant-design-vue/es/config-provider';
import { computed, onBeforeUnmount, onMounted, ref, watchEffect } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../data/api.ts';
import { incomingDrawing, incomingLibrary, kindOfFile } from '../data/incoming.ts';
import { reading } from '../data/read-file.ts';
import { stream } from '../data/stream.ts';
import { useShopStore } from '../data/shop-store.ts';
import AlarmScreen from './watch/AlarmScreen.vue';
import { antNightTheme, antTheme } from '../ui/ant-theme.ts';
import { light } from '../ui/light.ts';
import DueCalls from './watch/DueCalls.vue';
import { newerVersion } from './offline.ts';
import { outbox } from './outbox.ts';

/** A file can be dropped anywhere: it goes where it belongs. */
const router = useRouter();
const route = useRoute();
const shop = useShopStore();
const isOver = ref(false);
/** Beside the mould it is dark where this screen is set so. */
const isNight = computed(
  () => light.value === 'night' && (route.params.stage === 'run' || route.path.endsWith('/mix')),
);
watchEffect(() => (document.documentElement.dataset.light = isNight.value ? 'night' : 'day'));

/** Why a dropped file was not taken in; shown for a while, ms. */
const refusal = ref<string | null>(null);
const SHOWN = 8000;
let fading: ReturnType<typeof setTimeout> | undefined;

const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
function onOver(event: DragEvent) {
  if (!holdsFiles(event)) return;
  event.preventDefault();
  isOver.value = true;
}
function onLeave(event: DragEvent) {
  if (event.relatedTarget === null) isOver.value = false;
}
async function onDrop(event: DragEvent) {
  isOver.value = false;
  if (!holdsFiles(event) || event.defaultPrevented) return;
  event.preventDefault();
  const file = event.dataTransfer!.files[0];
  if (!file) return;
  const refuse = (why: string) => {
    refusal.value = `“${file.name}” was not taken in. ${why}`;
    clearTimeout(fading);
    fading = setTimeout(() => (refusal.value = null), SHOWN);
  };
  switch (kindOfFile(file.name)) {
    case 'job':
      if (file.size > MAX_FILE_BYTES)
        return refuse('It is larger than 4 MB; a job file never is. Check that it is the right one.');
      try {
        const added = await api.importJob(await file.text());
        await router.push(`/jobs/${added.id}/part`);
      } catch (error) {
        refuse((error as Error).message);
      }
      return;
    case 'drawing':
      try {
        // Outside a job it starts one.
        const name = file.name.replace(/\.[^.]*$/, '').slice(0, 80);
        const id = route.params.id ? String(route.params.id) : (await api.addJob({ name })).id;
        incomingDrawing.value = file;
        await router.push(`/jobs/${id}/part`);
      } catch (error) {
        refuse((error as Error).message);
      }
      return;
    case 'library':
      incomingLibrary.value = file;
      await router.push('/library');
      return;
    default:
      refuse(
        'Job files (.json), drawings (.dxf, .svg, .geojson) and library tables (.csv, .xlsx) can be dropped here.',
      );
  }
}
/** Said plainly, on every page: what this device alone knows. */
const isUnsent = computed(() => {
  const count = outbox.waitingCount.value;
  if (count === 0 || !isLate.value) return null;
  const what = count === 1 ? 'One entry has' : `${count} entries have`;
  return `${what} not been sent: the server does not answer. ${
    outbox.isOnDevice.value
      ? 'Kept on this device and sent by itself.'
      : 'Kept on this page alone: leave it open.'
  }`;
});
/** What is sent within a moment is not worth a word, ms. */
const MOMENT = 2500;
const isLate = ref(false);
let waitingSince: number | null = null;
const looking = setInterval(() => {
  waitingSince = outbox.waitingCount.value === 0 ? null : (waitingSince ?? Date.now());
  isLate.value = waitingSince !== null && Date.now() - waitingSince > MOMENT;
}, 500);

onMounted(() => {
  void shop.load();
  stream.start();
  window.addEventListener('dragover', onOver);
  window.addEventListener('dragleave', onLeave);
  window.addEventListener('drop', onDrop);
});
onBeforeUnmount(() => {
  clearInterval(looking);
  stream.stop();
  window.removeEventListener('dragover', onOver);
  window.removeEventListener('dragleave', onLeave);
  window.removeEventListener('drop', onDrop);
});
</script>

<template>
  <ConfigProvider :theme="isNight ? antNightTheme : antTheme" :auto-insert-space-in-button="false">
    <RouterView />
    <p v-if="refusal" class="refusal ember" role="alert">{{ refusal }}</p>
    <p v-if="reading" class="refusal reading" role="status">
      Reading “{{ reading.name }}” … <Button size="small" @click="reading.stop()">Stop</Button>
    </p>
    <p v-if="isUnsent" class="unsent" role="status" data-testid="unsent">{{ isUnsent }}</p>
    <p v-if="newerVersion" class="refusal newer" role="status">
      A newer version of this program is ready.
      <Button size="small" @click="newerVersion()">Take it now</Button>
      <Button size="small" type="text" @click="newerVersion = null">Later</Button>
    </p>
    <DueCalls />
    <AlarmScreen />
    <div v-if="isOver" class="over">Drop a job file, a drawing or a library table</div>
  </ConfigProvider>
</template>

<style scoped>
.refusal {
  position: fixed;
  top: 10px;
  left: 50%;
  transform: translateX(-50%);
  z-index: 2001;
  max-width: 720px;
  margin: 0;
  padding: 10px 18px;
  border: 1px solid var(--ember);
  background: var(--sheet);
}

.reading,
.newer {
  border-color: var(--resin);
}
.unsent {
  position: fixed;
  bottom: 0;
  left: 0;
  right: 0;
  z-index: 1500;
  margin: 0;
  padding: 6px 24px;
  background: var(--call);
  color: var(--call-ink);
  font-weight: 600;
}
.over {
  position: fixed;
  inset: 10px;
  z-index: 2000;
  border: 3px dashed var(--resin);
  background: #f6f3ecd0;
  display: grid;
  place-items: center;
  font: 600 24px var(--display);
  pointer-events: none;
}
</style>
