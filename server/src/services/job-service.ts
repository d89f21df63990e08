import type { JobListItem, JobRevision, NewJob, StoredJob, WrittenJob } from '@wick/contract/api';
import type { JobResult } from '@wick/contract/job/result';
import type { JobFile } from '@wick/plan/files/job-file';
import type { Read } from '@wick/plan/files/read';
import { withName } from '@wick/plan/job/edits';
import { jobWithShape } from '@wick/plan/job/new-job';
import { mirrorJob } from '@wick/plan/part/edits';
import { MouldGoneError, type JobRepo, type KeptJob } from '../repo/job-repo.ts';
import type { ResultRepo } from '../repo/result-repo.ts';
import { ProblemError } from './problem.ts';
import { readHere, type JobReader } from './reading/job-reader.ts';
import type { SummarisedJob } from './reading/readings.ts';
import type { ShopService } from './shop-service.ts';

export type JobService = ReturnType<typeof createJobService>;

const NAME_LENGTH = 80;
const renamed = (name: string, more: string) => `${name.slice(0, NAME_LENGTH - more.length)}${more}`;

function valueOf<T>(read: Read<T>): T {
  if (read.ok) return read.value;
  throw new ProblemError(read.code, read.message);
}

export function createJobService(
  { jobs: repo, results: found }: { readonly jobs: JobRepo; readonly results: ResultRepo },
  shop: Pick<ShopService, 'getShop'>,
  reader: JobReader = readHere,
) {
  const toKeep = async (document: unknown): Promise<SummarisedJob> =>
    valueOf(await reader.readAndSummarise(document, (await shop.getShop()).shop));

  /** The document brought up to date and checked; it may have been written by an earlier version. */
  async function readKept({ document, ...rest }: KeptJob): Promise<StoredJob> {
    const read = await reader.read(document);
    if (read.ok) return { ...rest, document: read.value };
    throw new ProblemError(
      read.code,
      `What is stored of this job does not hang together. ${read.message} Nothing was changed; take an earlier version of it back, import an exported file of it, or restore a backup.`,
    );
  }

  async function get(id: string): Promise<StoredJob> {
    const job = await repo.find(id);
    if (job) return readKept(job);
    throw new ProblemError(
      'NOT_FOUND',
      'This job is not here; it may have been deleted. Go back to the list of jobs.',
    );
  }

  /** @throws ProblemError NOT_FOUND */
  async function requireThere(id: string): Promise<void> {
    if (!(await repo.isThere(id))) await get(id);
  }

  /** Of a write from a revision that the job is no longer at. */
  async function refuseStale(id: string): Promise<never> {
    throw new ProblemError(
      'STALE',
      'This job was changed in another window or by someone else. Choose which version to keep.',
      await get(id),
    );
  }

  /** @throws ProblemError NOT_FOUND */
  async function earlier(id: string, revision: number): Promise<StoredJob> {
    const found = await repo.findRevision(id, revision);
    if (found) return readKept(found);
    throw new ProblemError('NOT_FOUND', 'This earlier version is no longer kept. Choose another.');
  }

  async function add(toKeep: SummarisedJob, results = toKeep.results): Promise<StoredJob> {
    return { ...(await repo.add(toKeep, results)), document: toKeep.document };
  }

  /** As the other hand if so wanted. */
  async function copy({ copyOf, mirrored }: Extract<NewJob, { copyOf: string }>): Promise<StoredJob> {
    const { document } = await get(copyOf);
    return mirrored
      ? add(await toKeep(withName(renamed(document.name, ', other hand'))(mirrorJob(document))))
      : add(await toKeep(withName(renamed(document.name, ', copy'))(document)), await found.of(copyOf));
  }

  return {
    get,
    list: (): Promise<JobListItem[]> => repo.list(),
    /** Empty where there is none. */
    nameOf: (id: string): Promise<string> => repo.nameOf(id),
    allIds: (): Promise<string[]> => repo.ids(),

    /** What lies in the database of a job, read or not. */
    stored: async (id: string): Promise<unknown> => (await repo.find(id))?.document ?? null,

    create: async (wanted: NewJob): Promise<StoredJob> =>
      'copyOf' in wanted ? copy(wanted) : add(await toKeep(jobWithShape(wanted))),

    async write(id: string, revision: number, document: unknown): Promise<WrittenJob> {
      const written = await repo.replace(id, revision, await toKeep(document)).catch((error: unknown) => {
        if (!(error instanceof MouldGoneError)) throw error;
        throw new ProblemError(
          'NOT_FOUND',
          'The mould that this job is put on was deleted meanwhile. Choose another in Part.',
        );
      });
      return written ?? refuseStale(id);
    },

    async revisions(id: string): Promise<JobRevision[]> {
      await requireThere(id);
      return repo.revisions(id);
    },
    revision: earlier,

    /** What the job is now stays among its earlier versions. */
    async takeBack(id: string, revision: number, wanted: number): Promise<StoredJob> {
      const { document } = await earlier(id, wanted);
      const written = await repo.replace(id, revision, await toKeep(document), { mayLackMould: true });
      return written ? { id, ...written, document } : refuseStale(id);
    },

    async importFile(text: string): Promise<StoredJob> {
      return add(valueOf(await reader.readFile(text, (await shop.getShop()).shop)));
    },

    async exportFile(id: string): Promise<JobFile> {
      const { document } = await get(id);
      const layouts = new Set(document.layouts.map((layout) => layout.id));
      const results = (await found.of(id)).filter(({ layoutId }) => layouts.has(layoutId));
      return { job: document, results };
    },

    async results(id: string): Promise<JobResult[]> {
      await requireThere(id);
      return found.of(id);
    },

    async keepResults(id: string, revision: number, results: readonly JobResult[]): Promise<void> {
      if (await found.keepAt(id, revision, results)) return;
      await refuseStale(id);
    },

    async setArchived(id: string, revision: number, isArchived: boolean): Promise<void> {
      if (!(await repo.setArchived(id, revision, isArchived))) await refuseStale(id);
    },

    async restore(id: string): Promise<StoredJob> {
      const restored = await repo.restore(id);
      if (restored) return readKept(restored);
      throw new ProblemError(
        'NOT_FOUND',
        'This job cannot be brought back: it was not deleted, or is cleared away.',
      );
    },

    async remove(id: string, revision: number): Promise<void> {
      if (await repo.remove(id, revision)) return;
      if (await repo.isThere(id)) await refuseStale(id);
      throw new ProblemError('NOT_FOUND', 'This job was already deleted.');
    },
  };
}
