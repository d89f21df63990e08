<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useBookStore } from '../../data/book-store.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import LearnedTable from './LearnedTable.vue';
import { useLearnedRows } from './learned-rows.ts';
import { useReview } from './review.ts';

/** What the parts so far say of the library and the mould: each value with before, after, how sure, and the parts behind it. */
const run = useRun();
const review = useReview();
const library = useLibraryStore();
const moulds = useMouldStore();
const book = useBookStore();
onMounted(() => {
  void library.load();
  if (!moulds.moulds) void moulds.load();
});
const showsAll = ref(false);
const rows = useLearnedRows();
const shown = computed(() => rows.value.filter(({ isOpen }) => showsAll.value || isOpen));
</script>

<template>
  <p v-if="library.problem ?? moulds.problem ?? book.problem" class="ember" role="alert">
    {{ library.problem ?? moulds.problem ?? book.problem }}
  </p>
  <p v-if="run.run?.kind === 'rehearsal'" class="quiet">
    A rehearsal is made on the library’s own values: it teaches nothing about them. What the parts in the book
    say is below.
  </p>
  <p v-else-if="review.isWorking" class="quiet">Working out what the marks of this part say …</p>
  <div class="tools">
    <label class="all"
      ><input v-model="showsAll" type="checkbox" /> what was taken or left as it was, too</label
    >
  </div>
  <p v-if="shown.length === 0" class="quiet" data-testid="nothing-learned">
    {{
      rows.length === 0
        ? 'No part has told anything of the library yet. Marks in the fill, a gel time, a thickness each tell something.'
        : 'Nothing new: library and mould have what the parts so far say.'
    }}
  </p>
  <LearnedTable v-else :rows="shown" />
  <p class="quiet">
    Values of the entry are multiplied by what stands there; jobs keep the values they were made with and are
    offered newer ones. No range gets narrower than parts of the same plan differ from each other. A mould
    learns from the parts that are in the book.
  </p>
</template>

<style scoped>
.all {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 32px;
}
</style>
