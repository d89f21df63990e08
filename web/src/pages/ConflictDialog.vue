<script setup lang="ts">
import type { Job } from '@wick/contract/job';
import { Button, Modal } from 'ant-design-vue';
import isEqual from 'fast-deep-equal';
import { computed } from 'vue';
import { useJobStore } from '../state/job-store.ts';

/** A stale write: both versions are offered, neither is lost. */
const job = useJobStore();
const sections: { key: keyof Job; name: string }[] = [
  { key: 'name', name: 'name' },
  { key: 'part', name: 'part' },
  { key: 'laminate', name: 'laminate' },
  { key: 'lines', name: 'lines' },
  { key: 'resin', name: 'resin' },
  { key: 'vacuum', name: 'vacuum' },
];
const differing = computed(() => {
  const [mine, theirs] = [job.document, job.conflict?.document];
  if (!mine || !theirs) return [];
  return sections.filter(({ key }) => !isEqual(mine[key], theirs[key])).map(({ name }) => name);
});
const when = computed(() => (job.conflict ? new Date(job.conflict.changedAt).toLocaleTimeString() : ''));
</script>

<template>
  <Modal
    :open="job.conflict !== null"
    title="This job was changed elsewhere"
    :closable="false"
    :mask-closable="false"
    :keyboard="false"
  >
    <p>
      Another window saved it at {{ when }}.
      <template v-if="differing.length > 0">The two differ in: {{ differing.join(', ') }}.</template>
      <template v-else>The two are the same in every stage.</template>
    </p>
    <p class="quiet">If you take the other version, yours stays one undo away.</p>
    <template #footer>
      <Button @click="job.resolveConflict('theirs')">Take the other version</Button>
      <Button type="primary" @click="job.resolveConflict('mine')">Keep this one</Button>
    </template>
  </Modal>
</template>
