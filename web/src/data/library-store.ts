import type { StoredMaterial } from '@wick/contract/api';
import type { Material, MaterialKind, MaterialOf } from '@wick/contract/materials';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, ApiProblem } from './api.ts';

/** The workshop's material library. */
export const useLibraryStore = defineStore('library', () => {
  const entries = shallowRef<readonly StoredMaterial[] | null>(null);
  const problem = ref<string | null>(null);

  async function attempt<T>(action: () => Promise<T>): Promise<T | undefined> {
    try {
      problem.value = null;
      return await action();
    } catch (error) {
      problem.value = (error as Error).message;
      if (error instanceof ApiProblem && error.problem.code === 'STALE')
        entries.value = await api.listMaterials();
      return undefined;
    }
  }

  const reload = () => attempt(async () => (entries.value = await api.listMaterials()));
  const load = () => (entries.value ? Promise.resolve() : reload());
  const find = (id: string) => entries.value?.find(({ material }) => material.id === id) ?? null;

  /** Adds the entry or writes over the revision that is shown. */
  async function save(material: Material): Promise<boolean> {
    const stored = await attempt(() => api.writeMaterial(find(material.id)?.revision ?? 0, material));
    if (!stored) return false;
    const others = (entries.value ?? []).filter((item) => item.material.id !== material.id);
    entries.value = [...others, stored].sort((a, b) => a.material.id.localeCompare(b.material.id));
    return true;
  }

  async function remove(id: string): Promise<boolean> {
    const found = find(id);
    if (!found) return false;
    const done = await attempt(async () => {
      await api.removeMaterial(id, found.revision);
      return true;
    });
    if (done) entries.value = (entries.value ?? []).filter(({ material }) => material.id !== id);
    return done ?? false;
  }

  async function importAll(materials: readonly Material[]) {
    const known = materials.map((material) => ({ revision: find(material.id)?.revision ?? 0, material }));
    const count = await attempt(() => api.importMaterials(known));
    if (count) entries.value = await api.listMaterials();
    return count ?? null;
  }

  const materials = computed(() => (entries.value ?? []).map(({ material }) => material));
  const ofKind = <K extends MaterialKind>(kind: K) =>
    materials.value.filter((item): item is MaterialOf<K> => item.kind === kind);

  return { entries, materials, problem, load, reload, find, save, remove, importAll, ofKind };
});

export type LibraryStore = ReturnType<typeof useLibraryStore>;
