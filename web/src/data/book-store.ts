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

  async function load(): Promise<void> {
    try {
      [lines.value, lessons.value] = await Promise.all([api.listBook(), api.listLessons()]);
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
    }
  }

  /** What is said of parts anywhere changes it. */
  const about = ['booked', 'lesson', 'lessonSettled', 'struck'];
  let waiting: ReturnType<typeof setTimeout> | undefined;
  stream.on('entry', ({ body }) => {
    if (lines.value === null || !about.includes(body.kind)) return;
    clearTimeout(waiting);
    waiting = setTimeout(() => void load(), SETTLE);
  });

  return { lines, lessons, problem, load };
});
