import type { ImportCount, JobListItem, MaterialVersion, StoredMaterial } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import type { JobRepo } from '../repo/job-repo.ts';
import type { LibraryRepo } from '../repo/library-repo.ts';
import { ProblemError } from './problem.ts';

export type LibraryService = ReturnType<typeof createLibraryService>;

export function createLibraryService(repo: LibraryRepo, jobs: JobRepo) {
  async function refuse(id: string, name: string): Promise<never> {
    const current = await repo.find(id);
    if (!current)
      throw new ProblemError('NOT_FOUND', `“${name}” is no longer in the library. Add it as a new entry.`);
    throw new ProblemError(
      'STALE',
      `“${name}” was changed in another window. Choose which version to keep.`,
      current,
    );
  }

  return {
    list: (): Promise<StoredMaterial[]> => repo.list(),
    history: (id: string): Promise<MaterialVersion[]> => repo.history(id),

    async write(revision: number, material: Material): Promise<StoredMaterial> {
      return (await repo.write(revision, material)) ?? (await refuse(material.id, material.name));
    },

    async importAll(values: readonly Material[]): Promise<ImportCount> {
      const ids = values.map(({ id }) => id);
      const twice = ids.find((id, index) => ids.indexOf(id) !== index);
      if (twice !== undefined)
        throw new ProblemError('BAD_REQUEST', `“${twice}” is in the file twice. Keep one of them.`);
      const known = new Map((await repo.list()).map(({ material }) => [material.id, material.kind]));
      const changed = values.find(({ id, kind }) => known.has(id) && known.get(id) !== kind);
      if (changed)
        throw new ProblemError(
          'BAD_REQUEST',
          `“${changed.id}” is a ${known.get(changed.id)} in the library and a ${changed.kind} in the file. Give it another id.`,
        );
      return repo.importAll(values);
    },

    /** Refused while a job holds the entry. */
    async remove(id: string, revision: number): Promise<void> {
      const found = await repo.find(id);
      if (!found) throw new ProblemError('NOT_FOUND', 'This entry was already deleted.');
      const users = (await jobs.list()).filter(({ materialIds }) => materialIds.includes(id));
      if (users.length > 0)
        throw new ProblemError(
          'IN_USE',
          `“${found.material.name}” stays: ${namesOf(users)} ${users.length === 1 ? 'uses' : 'use'} it. Choose another material there first, or leave it.`,
        );
      if (!(await repo.remove(id, revision))) await refuse(id, found.material.name);
    },
  };
}

/** Up to five names, then how many more. */
export function namesOf(jobs: readonly JobListItem[]): string {
  const names = jobs.slice(0, 5).map(({ name }) => `“${name}”`);
  const more = jobs.length - names.length;
  const list = more > 0 ? [...names, `${more} more`] : names;
  return list.length > 1 ? `${list.slice(0, -1).join(', ')} and ${list.at(-1)}` : (list[0] ?? '');
}
