import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { MAX_PHOTOS, type Photo } from '@wick/contract/run/photo';
import type { PhotoRepo } from '../../repo/photo-repo.ts';
import { createAside, TooMuchError } from '../aside.ts';
import { ProblemError } from '../problem.ts';
import type { RunService } from '../run/run-service.ts';
import { photoFiles, writeWhole } from './photo-files.ts';
import type { Scaled } from './picture.ts';

export type PhotoService = ReturnType<typeof createPhotoService>;
export type PhotoSize = 'large' | 'small';

/** Reads pictures in a thread of their own. */
export function createPictureReader(): {
  scale: (bytes: Uint8Array) => Promise<Scaled>;
  close: () => Promise<void>;
} {
  const aside = createAside<Uint8Array, Scaled>(new URL('./picture.worker.ts', import.meta.url), {
    ...{ memory: 768, longest: 60_000, waiting: 10, things: 'pictures' },
  });
  return {
    async scale(bytes) {
      try {
        return await aside.ask(bytes);
      } catch (error) {
        if (!(error instanceof TooMuchError)) throw error;
        const what = error.of === 'memory' ? 'with the memory there is for a picture' : 'within a minute';
        return { ok: false, why: `It could not be read ${what}. Make it smaller and add it again.` };
      }
    },
    close: aside.close,
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
