<script setup lang="ts">
import { withResin } from '@wick/plan/job/edits';
import { useSession } from '../../compute/use-desk.ts';
import { newId } from '@wick/plan/job/ids';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import JobField from '../common/JobField.vue';

/** Batches after the first: when each is mixed, and how much has been drawn when it is put on. */
const job = useSession();
const batches = computed(() => job.laid.resin.batches);

function change(index: number, changes: Partial<{ mixedAt: number; after: number }>) {
  job.apply(
    withResin({ batches: batches.value.map((old, i) => (i === index ? { ...old, ...changes } : old)) }),
  );
}
function add() {
  const last = batches.value.at(-1) ?? { mixedAt: 0, after: 0 };
  job.apply(
    withResin({
      batches: [...batches.value, { id: newId(), mixedAt: last.mixedAt + 900, after: last.after + 5 }],
    }),
  );
}
</script>

<template>
  <div class="batches">
    <div v-for="(batch, i) in batches" :key="batch.id" class="batch">
      <JobField
        :label="`Batch ${i + 2} mixed, after the first`"
        path="resin.batches.mixedAt"
        :model-value="batch.mixedAt"
        @update:model-value="change(i, { mixedAt: $event! })"
      />
      <JobField
        :label="`Batch ${i + 2} put on once drawn`"
        path="resin.batches.after"
        :model-value="batch.after"
        @update:model-value="change(i, { after: $event! })"
      />
      <Button
        size="small"
        type="text"
        :aria-label="`Delete batch ${i + 2}`"
        @click="job.apply(withResin({ batches: batches.filter((_, k) => k !== i) }))"
        >×</Button
      >
    </div>
    <Button size="small" type="link" @click="add">Add a further batch</Button>
  </div>
</template>

<style scoped>
.batches {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  align-items: end;
}
.batch {
  display: grid;
  grid-template-columns: 170px 170px auto;
  gap: 8px;
  align-items: end;
}
</style>
