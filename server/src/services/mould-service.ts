import type { StoredMould } from '@wick/contract/api';
import type { Mould } from '@wick/contract/mould';
import type { MouldRepo } from '../repo/mould-repo.ts';
import { listed } from './library-service.ts';
import { ProblemError } from './problem.ts';

export type MouldService = ReturnType<typeof createMouldService>;

export function createMouldService(repo: MouldRepo) {
  async function refuse(id: string): Promise<never> {
    const current = await repo.find(id);
    if (!current) throw new ProblemError('NOT_FOUND', 'This mould is no longer in the list.');
    throw new ProblemError(
      'STALE',
      `“${current.mould.name}” was changed in another window. Choose which version to keep.`,
      current,
    );
  }

  return {
    list: (): Promise<StoredMould[]> => repo.list(),

    async write(revision: number, mould: Mould): Promise<StoredMould> {
      return (await repo.write(revision, mould)) ?? (await refuse(mould.id));
    },

    /** Refused while a job is made on it. */
    async remove(id: string, revision: number): Promise<void> {
      const users = await repo.remove(id, revision);
      if (!users) await refuse(id);
      else if (users.length > 0)
        throw new ProblemError(
          'IN_USE',
          `This mould stays: ${listed(users)} ${users.length === 1 ? 'is' : 'are'} made on it. Choose another mould there first.`,
        );
    },
  };
}
