import type { StoredMould } from '@wick/contract/api';
import type { Mould } from '@wick/contract/mould';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api, ApiProblem } from './api.ts';

/** Records of the workshop's moulds. */
export const useMouldStore = defineStore('moulds', () => {
  const moulds = shallowRef<readonly StoredMould[] | null>(null);
  const problem = ref<string | null>(null);

  async function attempt<T>(action: () => Promise<T>): Promise<T | undefined> {
    try {
      problem.value = null;
      return await action();
    } catch (error) {
      problem.value = (error as Error).message;
      if (error instanceof ApiProblem && error.problem.code === 'STALE')
        moulds.value = await api.listMoulds();
      return undefined;
    }
  }

  const load = () => attempt(async () => (moulds.value = await api.listMoulds()));
  const find = (id: string | undefined) => moulds.value?.find(({ mould }) => mould.id === id) ?? null;

  /** Adds the record or writes over the revision that is shown. */
  async function save(mould: Mould): Promise<boolean> {
    const revision = find(mould.id)?.revision ?? 0;
    const stored = await attempt(() => api.writeMould(revision, mould));
    if (!stored) return false;
    const others = (moulds.value ?? []).filter((item) => item.mould.id !== mould.id);
    moulds.value = [...others, stored].sort((a, b) => a.mould.id.localeCompare(b.mould.id));
    return true;
  }

  async function remove(id: string) {
    const found = find(id);
    if (found) await attempt(() => api.removeMould(id, found.revision));
    if (!problem.value) moulds.value = (moulds.value ?? []).filter(({ mould }) => mould.id !== id);
  }

  return { moulds, problem, load, find, save, remove };
});
