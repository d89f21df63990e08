import type { BookLine, OpenLesson } from '@wick/contract/review';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api } from './api.ts';

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

  return { lines, lessons, problem, load };
});
