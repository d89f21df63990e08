<script setup lang="ts">
import { differencesOf } from '@wick/plan/job/differences';
import Button from 'ant-design-vue/es/button';
import Modal from 'ant-design-vue/es/modal';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';

/** A stale write: both versions are offered with all in which they differ; neither is lost. */
const job = useSession();
const MOST = 12;
const differences = computed(() => (job.conflict ? differencesOf(job.document, job.conflict.document) : []));
const shown = computed(() => differences.value.slice(0, MOST));
const more = computed(() => differences.value.length - shown.value.length);
const when = computed(() => (job.conflict ? new Date(job.conflict.changedAt).toLocaleTimeString() : ''));
</script>

<template>
  <Modal
    transition-name=""
    mask-transition-name=""
    :open="job.conflict !== null"
    title="This job was changed elsewhere"
    :closable="false"
    :mask-closable="false"
    :keyboard="false"
  >
    <p>
      Another window saved it at {{ when }}.
      <template v-if="differences.length === 0">The two are the same.</template>
      <template v-else>The two differ in:</template>
    </p>
    <ul v-if="shown.length > 0" data-testid="differences">
      <li v-for="({ where, what }, i) in shown" :key="i">
        <span v-if="where" class="quiet">{{ where }} › </span>{{ what }}
      </li>
      <li v-if="more > 0" class="quiet">and {{ more }} more</li>
    </ul>
    <p class="quiet">If you take the other version, yours stays one undo away.</p>
    <template #footer>
      <Button @click="job.resolveConflict('theirs')">Take the other version</Button>
      <Button type="primary" @click="job.resolveConflict('mine')">Keep this one</Button>
    </template>
  </Modal>
</template>

<style scoped>
ul {
  max-height: 220px;
  overflow: auto;
  padding-left: 18px;
}
</style>
