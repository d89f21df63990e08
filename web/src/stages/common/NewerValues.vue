<script setup lang="ts">
import { editMaterial } from '@wick/plan/job/edits';
import { useSession } from '../../compute/use-desk.ts';
import type { Material } from '@wick/contract/materials';
import Button from 'ant-design-vue/es/button';
import equal from 'fast-deep-equal';
import { computed } from 'vue';
import { useLibraryStore } from '../../data/library-store.ts';

/** A job keeps the values it was computed with; where the library has moved on, the newer ones are offered. */
const props = defineProps<{ kinds: readonly Material['kind'][] }>();
const job = useSession();
const library = useLibraryStore();

/** Price, shelf and containers are the library's own business. */
const valuesOf = (material: Material): unknown =>
  JSON.parse(JSON.stringify({ ...material, price: undefined, stock: undefined, lots: undefined }));
const newer = computed(() =>
  job.laid.materials.flatMap((own) => {
    const stored = props.kinds.includes(own.kind) ? library.find(own.id)?.material : undefined;
    // The library keeps its fields in its own order; undefined and left out are the same.
    return stored && !equal(valuesOf(stored), valuesOf(own)) ? [{ own, stored }] : [];
  }),
);
</script>

<template>
  <div v-for="{ own, stored } in newer" :key="own.id" class="newer" data-testid="newer-values">
    <span>The library has other values for {{ own.name }} than this job was computed with.</span>
    <Button size="small" @click="job.apply(editMaterial(stored))">Use the library’s</Button>
  </div>
</template>

<style scoped>
.newer {
  border-left: 3px solid var(--resin);
  padding: 2px 0 4px 10px;
  margin: 10px 0;
  font-size: 13px;
}
</style>
