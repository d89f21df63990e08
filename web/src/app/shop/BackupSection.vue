<script setup lang="ts">
import type { BackupFile } from '@wick/contract/api';
import Button from 'ant-design-vue/es/button';
import { onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';

/** Backups of everything, out and in. */
const nightlies = shallowRef<readonly BackupFile[]>([]);
const file = ref<HTMLInputElement | null>(null);
/** A backup chosen to take the place of what is there, until that is said once more. */
const chosen = shallowRef<File | null>(null);
const isRestoring = ref(false);
const answer = ref<{ text: string; isBad: boolean } | null>(null);

const size = (byteCount: number) =>
  byteCount < 1e6 ? `${Math.ceil(byteCount / 1e3)} kB` : `${(byteCount / 1e6).toFixed(1)} MB`;

async function attempt(action: () => Promise<void>) {
  answer.value = null;
  await action().catch((error: unknown) => (answer.value = { text: (error as Error).message, isBad: true }));
}
onMounted(() => attempt(async () => void (nightlies.value = await api.listBackups())));

function choose() {
  chosen.value = file.value?.files?.[0] ?? null;
  if (file.value) file.value.value = '';
}
async function restore() {
  const backup = chosen.value;
  if (!backup) return;
  isRestoring.value = true;
  await attempt(async () => {
    const { keptAs } = await api.restoreBackup(backup);
    answer.value = {
      text: `“${backup.name}” is in place. What was there before is kept in the data folder as “${keptAs}”.`,
      isBad: false,
    };
  });
  isRestoring.value = false;
  chosen.value = null;
}
</script>

<template>
  <section>
    <h3>Backups</h3>
    <p class="quiet">
      A backup is one file with every job and its earlier versions, the library, the moulds and these
      settings. One is made each day by itself; the last seven are kept in the data folder. Keep one elsewhere
      as well.
    </p>
    <p class="tools">
      <Button :href="api.backupFile()" download>Save a backup</Button>
      <Button :href="api.openFiles()" download>Save everything as open files</Button>
      <Button @click="file?.click()">Restore a backup</Button>
      <input ref="file" type="file" accept=".zip" hidden aria-label="Backup to restore" @change="choose" />
    </p>
    <p v-if="chosen" role="alert" class="tools">
      “{{ chosen.name }}” takes the place of every job, the library, the moulds and the settings.
      <Button type="primary" danger :loading="isRestoring" @click="restore">Put it in their place</Button>
      <Button :disabled="isRestoring" @click="chosen = null">Leave them</Button>
    </p>
    <p v-if="answer" :class="{ ember: answer.isBad }" :role="answer.isBad ? 'alert' : 'status'">
      {{ answer.text }}
    </p>
    <ul v-if="nightlies.length > 0" aria-label="Backups of the last days">
      <li v-for="{ name, byteCount } in nightlies" :key="name">
        <a :href="api.backupFile(name)" download>{{ name }}</a>
        <span class="quiet">{{ size(byteCount) }}</span>
      </li>
    </ul>
  </section>
</template>
