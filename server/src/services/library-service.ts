import type { ImportCount, MaterialVersion, StoredMaterial } from '@wick/contract/api';
import type { Material } from '@wick/contract/materials';
import type { LibraryRepo } from '../repo/library-repo.ts';
import { ProblemError } from './problem.ts';

export type LibraryService = ReturnType<typeof createLibraryService>;

export function createLibraryService(repo: LibraryRepo) {
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

    async importAll(values: readonly StoredMaterial[]): Promise<ImportCount> {
      const seen = new Set<string>();
      const known = new Map((await repo.list()).map(({ material }) => [material.id, material]));
      for (const { material } of values) {
        const { id, kind } = material;
        if (seen.has(id))
          throw new ProblemError('BAD_REQUEST', `“${id}” is in the file twice. Keep one of them.`);
        seen.add(id);
        const before = known.get(id);
        if (before && before.kind !== kind)
          throw new ProblemError(
            'BAD_REQUEST',
            `“${id}” is a ${before.kind} in the library and a ${kind} in the file. Give it another id.`,
          );
      }
      const count = await repo.importAll(values);
      if (!('stale' in count)) return count;
      const names = count.stale.map((id) => known.get(id)?.name ?? id);
      throw new ProblemError(
        'STALE',
        `${listed(names)} changed in the library since the file was compared with it; nothing was taken in. Look at the file again.`,
      );
    },

    /** Refused while a job holds the entry. */
    async remove(id: string, revision: number): Promise<void> {
      const found = await repo.find(id);
      if (!found) throw new ProblemError('NOT_FOUND', 'This entry was already deleted.');
      const users = await repo.remove(id, revision);
      if (!users) await refuse(id, found.material.name);
      else if (users.length > 0)
        throw new ProblemError(
          'IN_USE',
          `“${found.material.name}” stays: ${listed(users)} ${users.length === 1 ? 'uses' : 'use'} it. Choose another material there first, or leave it.`,
        );
    },
  };
}

/** Up to five names, then how many more. */
export function listed(all: readonly string[]): string {
  const names = all.slice(0, 5).map((name) => `“${name}”`);
  const more = all.length - names.length;
  const list = more > 0 ? [...names, `${more} more`] : names;
  return list.length > 1 ? `${list.slice(0, -1).join(', ')} and ${list.at(-1)}` : (list[0] ?? '');
}
