import type { StoredSteps } from '@wick/contract/api';
import type { StepLibrary } from '@wick/contract/steps';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api, ApiProblem } from './api.ts';

/** The workshop's library of steps. */
export const useStepsStore = defineStore('steps', () => {
  const stored = shallowRef<StoredSteps | null>(null);
  const problem = ref<string | null>(null);

  async function load(): Promise<void> {
    try {
      stored.value = await api.getSteps();
      problem.value = null;
    } catch (error) {
      problem.value = (error as Error).message;
    }
  }

  /** As a revision of its own. @returns whether it was written */
  async function save(steps: StepLibrary, by: string): Promise<boolean> {
    if (!stored.value) return false;
    try {
      stored.value = await api.writeSteps(stored.value.revision, by, steps);
      problem.value = null;
      return true;
    } catch (error) {
      problem.value = (error as Error).message;
      if (error instanceof ApiProblem && error.problem.code === 'STALE') {
        const current = await api.getSteps().catch(() => null);
        if (current) stored.value = current;
      }
      return false;
    }
  }

  return { stored, problem, load, save };
});
