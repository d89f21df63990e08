<script setup lang="ts">
import { isAlike } from '@wick/plan/review/lessons';
import { targetNames } from '@wick/plan/review/names';
import { computed, onMounted, ref } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useBookStore } from '../../data/book-store.ts';

/** Lessons of alike parts that nobody has taken yet, over the job they are for. */
const job = useSession();
const book = useBookStore();
const isOpen = ref(false);
onMounted(() => void book.loadLessons());
const own = computed(() => ({
  id: job.id,
  mouldId: job.document.mould?.id ?? null,
  process: job.document.process,
  materialIds: job.document.materials.map(({ id }) => id),
}));
const lessons = computed(() =>
  (book.lessons ?? []).filter(({ jobId, ...from }) => isAlike({ id: jobId, ...from }, own.value)),
);
</script>

<template>
  <details v-if="lessons.length > 0" :open="isOpen" class="lessons" data-testid="open-lessons">
    <summary @click.prevent="isOpen = !isOpen">
      {{ lessons.length }} open {{ lessons.length === 1 ? 'lesson' : 'lessons' }} of alike parts
    </summary>
    <ul>
      <li v-for="lesson in lessons" :key="lesson.lessonId">
        {{ lesson.text }}
        <span class="quiet">
          ({{ targetNames[lesson.target] }};
          <RouterLink :to="`/jobs/${lesson.jobId}/review?pane=next`"
            >{{ lesson.jobName }} {{ lesson.number }}</RouterLink
          >)</span
        >
      </li>
    </ul>
  </details>
</template>

<style scoped>
.lessons {
  padding: 4px 24px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
summary {
  cursor: pointer;
  color: var(--resin-ink);
  font-weight: 600;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
  max-height: 120px;
  overflow: auto;
}
</style>
