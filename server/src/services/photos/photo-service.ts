import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { MAX_PHOTOS, type Photo } from '@wick/contract/run/photo';
import { Piscina } from 'piscina';
import type { PhotoRepo } from '../../repo/photo-repo.ts';
import { ProblemError } from '../problem.ts';
import type { RunService } from '../run/run-service.ts';
import { photoFiles, writeWhole } from './photo-files.ts';
import type { Scaled } from './picture.ts';

export type PhotoService = ReturnType<typeof createPhotoService>;
export type PhotoSize = 'large' | 'small';

/** Pictures that wait to be read at most, and how long one may take, ms. */
const MOST_WAITING = 10;
const LONGEST = 60_000;
const MEMORY_MB = 768;

/** Reads pictures in a thread of its own, which ends when nothing is asked for a while. */
export function createPictureReader(): {
  scale: (bytes: Uint8Array) => Promise<Scaled>;
  close: () => Promise<void>;
} {
  let pool: Piscina | null = null;
  /** Started by the first picture. */
  const open = () => {
    const made = new Piscina({
      filename: new URL('./picture.worker.ts', import.meta.url).href,
      execArgv: ['--import', 'tsx'],
      minThreads: 0,
      maxThreads: 1,
      maxQueue: MOST_WAITING,
      idleTimeout: 30_000,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    });
    made.on('error', () => undefined);
    return made;
  };
  return {
    async scale(bytes) {
      const aside = (pool ??= open());
      if (aside.queueSize >= MOST_WAITING)
        throw new ProblemError(
          'TOO_OFTEN',
          'Too many pictures wait to be read. Send this one again in a minute.',
        );
      const signal = AbortSignal.timeout(LONGEST);
      try {
        return (await aside.run(bytes, { signal })) as Scaled;
      } catch (error) {
        const isTooMuch = (error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY';
        if (!signal.aborted && !isTooMuch) throw error;
        const what = isTooMuch ? 'with the memory there is for a picture' : 'within a minute';
        return { ok: false, why: `It could not be read ${what}. Make it smaller and add it again.` };
      }
    },
    close: async () => pool?.destroy(),
  };
}

const pathIn = (folder: string, { runId, id }: Pick<Photo, 'runId' | 'id'>, size: PhotoSize) =>
  join(folder, runId, `${id}.${size}.jpg`);

/** Pictures of runs: what is known of them in the database, they themselves in a folder beside it. */
export function createPhotoService(parts: {
  readonly folder: string;
  readonly repo: PhotoRepo;
  readonly runs: Pick<RunService, 'find'>;
  readonly scale: (bytes: Uint8Array) => Promise<Scaled>;
}) {
  const { folder, repo, runs, scale } = parts;

  return {
    /** The same id again is answered with what is there. @throws ProblemError NOT_FOUND, BAD_PHOTO, TOO_LARGE */
    async add(runId: string, id: string, bytes: Uint8Array): Promise<Photo> {
      const known = await repo.find(runId, id);
      if (known && existsSync(pathIn(folder, known, 'large'))) return known;
      await runs.find(runId);
      if ((await repo.count(runId)) >= MAX_PHOTOS)
        throw new ProblemError(
          'TOO_LARGE',
          `This run has its ${MAX_PHOTOS} pictures. Nothing was added; leave the others for the next run.`,
        );
      const read = await scale(bytes);
      if (!read.ok) throw new ProblemError('BAD_PHOTO', `The picture was not kept. ${read.why}`);
      const { large, small, width, height } = read.picture;
      const photo: Photo = { id, runId, width, height, byteCount: large.byteLength };
      mkdirSync(join(folder, runId), { recursive: true, mode: 0o700 });
      // The files first: what the database knows of is there.
      for (const [size, data] of [
        ['small', small],
        ['large', large],
      ] as const)
        writeWhole(pathIn(folder, photo, size), data);
      return repo.add(photo);
    },

    /** Of all runs. */
    files: () => photoFiles(folder),

    /** Where a picture lies, if it is there. */
    fileOf: (runId: string, id: string, size: PhotoSize): string => pathIn(folder, { runId, id }, size),

    /** @throws ProblemError NOT_FOUND */
    async pathOf(runId: string, id: string, size: PhotoSize): Promise<string> {
      const photo = await repo.find(runId, id);
      const path = photo && pathIn(folder, photo, size);
      if (path && existsSync(path)) return path;
      throw new ProblemError('NOT_FOUND', 'This picture is not here. It may not have been sent yet.');
    },
  };
}
