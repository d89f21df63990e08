import { existsSync } from 'node:fs';
import type { Logger } from 'pino';
import { makeDatabase } from './make-database.ts';
import { createBackupRepo, readThrough } from './repo/backup-repo.ts';
import { openEmbedded, openServer, type Database } from './repo/database.ts';
import { realDisk } from './repo/embedded/disk.ts';
import { FolderError, wordsOf } from './repo/embedded/folder-error.ts';
import { installDatabase, type DataFolder } from './repo/embedded/folder.ts';
import { createReserve } from './repo/embedded/reserve.ts';
import { checkBackup, rowsOf } from './services/backup/backup-file.ts';
import { stamp } from './services/backup/backup-service.ts';
import { ProblemError } from './services/problem.ts';
import { seedIfEmpty } from './services/seed.ts';

type Log = Pick<Logger, 'info' | 'warn'>;

/** The database is there and cannot be relied on; the message says what was found. */
export class DamagedError extends Error {}

export interface Store {
  readonly database: Database;
  readonly close: () => Promise<void>;
  /** Takes a backup in the place of what is there. @returns where that is kept now. @throws ProblemError BAD_BACKUP */
  readonly restore: (backup: string) => Promise<string>;
}

const SEEDED = 'empty database: demo workshop added';

/** Opens a PostgreSQL server, filled with the demo workshop where it is new. @throws FolderError */
export async function openServerStore(url: string, log: Log): Promise<Store> {
  const opened = await openServer(url).catch((error: unknown) => {
    throw new FolderError(
      `The database server of DATABASE_URL cannot be used (${wordsOf(error)}). Check that it runs, and its name, user and password.`,
    );
  });
  if (await seedIfEmpty(opened.database)) log.info(SEEDED);
  return {
    ...opened,
    async restore() {
      throw new ProblemError(
        'BAD_BACKUP',
        'On a database server a backup is only restored into an empty database: make one, and run “wick restore” with its DATABASE_URL.',
      );
    },
  };
}

/** Takes a backup up in a database that is empty. @throws ProblemError BAD_BACKUP */
export async function restoreIntoServer(url: string, backup: string): Promise<void> {
  await checkBackup(backup);
  const { database, close } = await openServer(url);
  try {
    const repo = createBackupRepo(database);
    if (!(await repo.isEmpty()))
      throw new ProblemError(
        'BAD_BACKUP',
        'The database of DATABASE_URL is not empty. Nothing was changed; make an empty one and restore into that.',
      );
    await repo.writeAll(rowsOf(backup));
  } finally {
    await close();
  }
}

/** Opens the embedded database, made and filled where there is none. @throws FolderError, DamagedError */
export async function openEmbeddedStore(folder: DataFolder, log: Log): Promise<Store> {
  if (!existsSync(folder.database)) {
    await makeDatabase(folder);
    installDatabase(folder);
    log.info(SEEDED);
  }
  const reserve = createReserve(folder.reserve, realDisk);
  reserve.refill();
  const parts = {
    folder: folder.database,
    disk: realDisk,
    reserve,
    onNotice: (text: string) => log.warn(text),
  };
  const opened = await openEmbedded(parts).catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
      throw new FolderError(`The disk that holds ${folder.root} is full. Free some space and start again.`);
    throw new DamagedError(`it does not open, ${wordsOf(error)}`);
  });
  await readThrough(opened.database).catch(async (error: unknown) => {
    await opened.close().catch(() => undefined);
    throw new DamagedError(wordsOf((error as Error).cause ?? error));
  });
  return {
    ...opened,
    async restore(backup) {
      const keepAs = `database before ${stamp(new Date())}`;
      await checkBackup(backup);
      await makeDatabase(folder, backup);
      await opened.exchange(() => installDatabase(folder, keepAs));
      return keepAs;
    },
  };
}
