import type { Logger } from 'pino';
import { makeFirst } from './first-start.ts';
import { openEmbedded, openServer, type Database } from './repo/database.ts';
import { realDisk } from './repo/embedded/disk.ts';
import { FolderError, wordsOf } from './repo/embedded/folder-error.ts';
import { takeFolder, type DataFolder } from './repo/embedded/folder.ts';
import { createReserve } from './repo/embedded/reserve.ts';
import { seedIfEmpty } from './services/seed.ts';
import type { Settings } from './settings.ts';

export interface Store {
  readonly database: Database;
  readonly folder: DataFolder;
  readonly close: () => Promise<void>;
}

/** Opens what the server keeps its records in, filled with the demo workshop where it is new. @throws FolderError */
export async function openStore(settings: Settings, log: Pick<Logger, 'info' | 'warn'>): Promise<Store> {
  const folder = takeFolder(settings.folder);
  process.on('exit', folder.unlock);
  const said = 'empty database: demo workshop added';
  if (settings.databaseUrl) {
    const opened = await openServer(settings.databaseUrl).catch((error: unknown) => {
      throw new FolderError(
        `The database server of DATABASE_URL cannot be used (${wordsOf(error)}). Check that it runs, and its name, user and password.`,
      );
    });
    if (await seedIfEmpty(opened.database)) log.info(said);
    return { ...opened, folder };
  }
  if (await makeFirst(folder)) log.info(said);
  const reserve = createReserve(folder.reserve, realDisk);
  reserve.refill();
  const opened = await openEmbedded({
    folder: folder.database,
    disk: realDisk,
    reserve,
    onNotice: (text) => log.warn(text),
  }).catch((error: unknown) => {
    throw new FolderError(
      `The database in ${folder.database} does not open (${wordsOf(error)}). It was left as it is.`,
    );
  });
  return { ...opened, folder };
}
