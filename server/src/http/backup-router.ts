import { randomUUID } from 'node:crypto';
import { createWriteStream, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { routes } from '@wick/contract/api';
import { Router, type RequestHandler, type Response } from 'express';
import { stamp, type BackupService } from '../services/backup/backup-service.ts';
import { writeOpenFiles, type OpenFilesFrom } from '../services/backup/open-files.ts';
import { ProblemError } from '../services/problem.ts';
import { serve } from './serve.ts';

export interface BackupParts {
  readonly backups: BackupService;
  /** Where a file that is sent may lie for a while. */
  readonly passing: string;
  readonly restore: (backup: string) => Promise<string>;
}

const ZIP_TYPE = 'application/zip';

export function backupRouter({ backups, passing, restore }: BackupParts, from: OpenFilesFrom): Router {
  const router = Router();
  serve(router, routes.listBackups, async () => backups.nightlies());
  router.get(routes.takeBackup.path, async (request, response) => {
    const { name } = request.query;
    if (typeof name === 'string') {
      const path = backups.pathOf(name);
      if (!path) throw new ProblemError('NOT_FOUND', 'There is no backup of that name here.');
      return response.download(path, name);
    }
    const path = await backups.make();
    response.download(path, `vivid wick ${stamp(new Date())}.wick-backup.zip`, () =>
      rmSync(path, { force: true }),
    );
  });
  router.get(routes.openFiles.path, async (_request, response) => {
    response.attachment(`vivid wick files ${stamp(new Date())}.zip`).type(ZIP_TYPE);
    await writeOpenFiles(from, (chunk) => void response.write(chunk));
    response.end();
  });
  router.post(routes.restoreBackup.path, takeFile(passing), async (_request, response) => {
    const { path } = response.locals as { path: string };
    try {
      response.json({ keptAs: await restore(path) });
    } finally {
      rmSync(path, { force: true });
    }
  });
  return router;
}

/** Puts what is sent into a file, as it comes. */
const takeFile =
  (passing: string): RequestHandler =>
  async (request, response: Response, next) => {
    if (request.headers['content-type'] !== ZIP_TYPE)
      throw new ProblemError('WRONG_TYPE', `Send the backup as ${ZIP_TYPE}.`);
    const path = join(passing, `sent ${randomUUID()}`);
    try {
      await pipeline(request, createWriteStream(path, { mode: 0o600 }));
    } catch (error) {
      rmSync(path, { force: true });
      throw error;
    }
    response.locals.path = path;
    next();
  };
