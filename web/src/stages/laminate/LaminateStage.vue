<script setup lang="ts">
import { booksOf, checkOfBook, stackOfBook } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import { missingOf } from '@wick/plan/forecast/missing';
import { partSums } from '@wick/plan/laminate/ply-book';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import StageShell from '../../ui/StageShell.vue';
import type { Stage } from '../stage.ts';
import CutList from './CutList.vue';
import LaminateAnswer from './LaminateAnswer.vue';
import PlyBoard from './PlyBoard.vue';
import PlyTable from './PlyTable.vue';
import StackAround from './StackAround.vue';
import StackDrawing from './StackDrawing.vue';
import Tabs from '../../ui/Tabs.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useSession();
const shop = useShopStore();
const panes = ['Ply book', 'Cut list'] as const;
const pane = ref<(typeof panes)[number]>('Ply book');
const bookId = ref<string | null>(null);
const chosen = ref<number | null>(null);

const books = computed(() => booksOf(job.laid));
const bookTabs = computed(() =>
  books.value.map(({ zoneId, name, laminate }) => ({
    value: zoneId,
    label: name,
    note: `${laminate.plies.length} plies`,
  })),
);
const book = computed(() => books.value.find(({ zoneId }) => zoneId === bookId.value) ?? books.value[0]!);
const result = computed(() => {
  if (book.value.laminate.plies.length === 0)
    return {
      message:
        book.value.zoneId === null
          ? missingOf(job.laid).find((item) => item.stage === 'laminate')!.message
          : `${book.value.name} has no plies yet. Let base plies run through, or add its own.`,
    };
  try {
    return {
      stack: stackOfBook(job.laid, book.value, shop.shop),
      check: checkOfBook(job.laid, book.value),
      sums: partSums(job.laid, shop.shop),
    };
  } catch (error) {
    return { message: (error as Error).message };
  }
});
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Tabs
        v-model="pane"
        class="tools"
        label="Laminate"
        :tabs="panes.map((value) => ({ value, label: value }))"
      />
    </template>
    <template v-if="pane === 'Ply book'">
      <Tabs
        class="tools books"
        label="Zones"
        :model-value="book.zoneId"
        :tabs="bookTabs"
        @update:model-value="((bookId = $event), (chosen = null))"
      />
      <div class="columns">
        <div class="left">
          <PlyTable
            :book="book"
            :thicknesses="result.stack?.plies.map((ply) => ply.thickness) ?? []"
            :odd="result.check?.firstOdd ?? null"
            :chosen="chosen"
            @choose="chosen = $event"
          />
          <StackAround :book="book" :stack="result.stack ?? null" />
        </div>
        <div class="right">
          <StackDrawing
            v-if="result.stack"
            :job="job.laid"
            :book="book"
            :stack="result.stack"
            :chosen="chosen"
          />
          <PlyBoard :book="book" :chosen="chosen" />
        </div>
      </div>
    </template>
    <CutList v-else />
    <template #answer>
      <LaminateAnswer :book="book" :result="result" />
    </template>
  </StageShell>
</template>

<style scoped>
.books {
  border-bottom: 1px solid var(--rule);
  margin-bottom: 8px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(462px, 1.25fr) minmax(190px, 0.75fr);
  gap: 24px;
}
</style>
