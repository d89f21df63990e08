import type { BookLine, OpenLesson } from '@wick/contract/review';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api } from './api.ts';
import { stream } from './stream.ts';

/** Several entries in a row are one change, ms. */
const SETTLE = 300;

/** The shop's book: parts that were reviewed, and lessons that are still open. */
export const useBookStore = defineStore('book', () => {
  const lines = shallowRef<readonly BookLine[] | null>(null);
  const lessons = shallowRef<readonly OpenLesson[] | null>(null);
  const problem = ref<string | null>(null);

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
    }
  }
  const load = () => attempt(async () => (lines.value = await api.listBook()));
  const loadLessons = () => attempt(async () => (lessons.value = await api.listLessons()));

  /** What is said of parts anywhere changes it. */
  const about = ['booked', 'lesson', 'lessonSettled', 'struck'];
  let waiting: ReturnType<typeof setTimeout> | undefined;
  stream.on('entry', ({ body }) => {
    if (!about.includes(body.kind)) return;
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      if (lines.value !== null) void load();
      if (lessons.value !== null) void loadLessons();
    }, SETTLE);
  });

  return { lines, lessons, problem, load, loadLessons };
});
