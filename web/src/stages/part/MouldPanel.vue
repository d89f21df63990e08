<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';

import { computed, onMounted } from 'vue';
import { useMouldStore } from '../../data/mould-store.ts';
import MouldHistory from '../../ui/MouldHistory.vue';
import Choice from '../../ui/Choice.vue';

/** The mould this job is made on, and what has happened to it. */
const job = useSession();
const store = useMouldStore();
onMounted(store.load);
const used = computed(() => job.laid.mould);
const stored = computed(() => store.find(used.value?.id));
const options = computed(() => [
  { value: '', label: 'not chosen' },
  ...(store.moulds ?? []).map(({ mould }) => ({ value: mould.id, label: mould.name })),
]);
function choose(id: string) {
  const found = store.find(id);
  job.apply((document) => ({ ...document, mould: found && { id, name: found.mould.name } }));
}
</script>

<template>
  <div class="tools">
    <label>
      <span class="quiet">Made on </span>
      <Choice
        class="wide"
        size="small"
        :value="stored ? stored.mould.id : ''"
        :options="options"
        aria-label="Mould"
        @change="choose(String($event))"
      />
    </label>
    <span v-if="stored" class="quiet">
      {{ stored.mould.material }},
      {{ stored.mould.plies === null ? 'plies not known' : `${stored.mould.plies} plies` }},
      {{ stored.mould.condition }}
    </span>
    <RouterLink to="/moulds">All moulds</RouterLink>
  </div>
  <p v-if="store.problem" class="ember" role="alert">{{ store.problem }}</p>
  <p v-if="used && !stored && store.moulds" class="quiet">
    The job names “{{ used.name }}”, which is not in this workshop’s list. Choose another, or add it under All
    moulds.
  </p>
  <MouldHistory v-if="stored" :mould="stored.mould" @change="store.save($event)" />
</template>

<style scoped>
.wide {
  width: 230px;
}
</style>
