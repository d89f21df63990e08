import type { JobListItem, StoredJob, VerdictSummary } from '@wick/contract/api';
import { emptyJob, type Job } from '@wick/contract/job';
import { readJob, readJobFile } from '@wick/contract/job-file';
import type { JobRepo } from '../repo/job-repo.ts';
import { ProblemError } from './problem.ts';

export type JobService = ReturnType<typeof createJobService>;

export function createJobService(repo: JobRepo) {
  async function get(id: string): Promise<StoredJob> {
    const job = await repo.find(id);
    if (!job)
      throw new ProblemError(
        'NOT_FOUND',
        'This job is not here; it may have been deleted. Go back to the list of jobs.',
      );
    return job;
  }

  return {
    get,
    list: (): Promise<JobListItem[]> => repo.list(),
    create: (name: string): Promise<StoredJob> => repo.add(emptyJob(name)),

    async duplicate(id: string): Promise<StoredJob> {
      const { document } = await get(id);
      return repo.add({ ...document, name: `${document.name.slice(0, 73)}, copy` });
    },

    async write(id: string, revision: number, document: unknown): Promise<StoredJob> {
      const read = readJob(document);
      if (!read.ok) throw new ProblemError(read.code, read.message);
      const written = await repo.replace(id, revision, read.value);
      if (written) return written;
      const current = await get(id);
      throw new ProblemError(
        'STALE',
        'This job was changed in another window or by someone else. Choose which version to keep.',
        current,
      );
    },

    async importFile(text: string): Promise<StoredJob> {
      const read = readJobFile(text);
      if (!read.ok) throw new ProblemError(read.code, read.message);
      return repo.add(read.value);
    },

    async exportFile(id: string): Promise<Job> {
      return (await get(id)).document;
    },

    async setVerdict(id: string, verdict: VerdictSummary): Promise<void> {
      await get(id);
      await repo.setVerdict(id, verdict);
    },

    async setArchived(id: string, isArchived: boolean): Promise<void> {
      await get(id);
      await repo.setArchived(id, isArchived);
    },

    async restore(id: string): Promise<StoredJob> {
      const restored = await repo.restore(id);
      if (!restored)
        throw new ProblemError(
          'NOT_FOUND',
          'This job cannot be brought back: it was not deleted, or is cleared away.',
        );
      return restored;
    },

    async remove(id: string): Promise<void> {
      if (!(await repo.remove(id))) throw new ProblemError('NOT_FOUND', 'This job was already deleted.');
    },
  };
}
