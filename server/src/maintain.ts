import { copyFileSync, createWriteStream, existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { get, type IncomingMessage } from 'node:http';
import { get as getSecurely } from 'node:https';
import { resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { routes } from '@wick/contract/api';
import { makeDatabase } from './make-database.ts';
import { DamagedError, openEmbeddedStore, openServerStore, restoreIntoServer } from './open-store.ts';
import { projectFolder } from './own-files.ts';
import { createBackupRepo } from './repo/backup-repo.ts';
import { FolderError } from './repo/embedded/folder-error.ts';
import { installDatabase, takeFolder } from './repo/embedded/folder.ts';
import { LockedError } from './repo/embedded/lock.ts';
import { checkBackup, rowsOf } from './services/backup/backup-file.ts';
import { restorePhotoFiles } from './services/photos/photo-files.ts';
import { createBackupService } from './services/backup/backup-service.ts';
import { ProblemError } from './services/problem.ts';
import { readSettings, type Settings } from './settings.ts';

// What is written here is for the user of this program alone.
process.umask(0o077);

const quiet = { info: () => undefined, warn: () => undefined };
const say = (text: string) => process.stdout.write(`${text}\n`);

/** Writes a backup of everything to a file, through the server where one has the folder open. */
async function backup(file: string, settings: Settings) {
  if (existsSync(file)) throw new FolderError(`${file} is there already. Name a new file.`);
  try {
    await backupHere(file, settings);
  } catch (error) {
    if (!(error instanceof LockedError) || !error.address) throw error;
    await pipeline(await download(`${error.address}${routes.takeBackup.path}`), createWriteStream(file));
  }
  const { tables } = await checkBackup(file).catch((error: unknown) => {
    rmSync(file, { force: true });
    throw error;
  });
  const jobs = tables.find(({ name }) => name === 'jobs')?.rowCount ?? 0;
  say(`${file}: ${jobs} jobs, ${Math.round(statSync(file).size / 1000)} kB, read again and whole.`);
}

async function backupHere(file: string, settings: Settings) {
  const folder = takeFolder(settings.folder);
  try {
    const store = await (settings.databaseUrl
      ? openServerStore(settings.databaseUrl, quiet)
      : openEmbeddedStore(folder, quiet));
    const made = await createBackupService(createBackupRepo(store.database), {
      folder: folder.backups,
      passing: folder.passing,
      photos: folder.photos,
    }).make();
    copyFileSync(made, file);
    rmSync(made);
    await store.close();
  } finally {
    folder.unlock();
  }
}

/** The server on this machine, whose certificate it made itself. */
function download(address: string): Promise<IncomingMessage> {
  return new Promise((resolveWith, reject) => {
    const take = (response: IncomingMessage) =>
      response.statusCode === 200
        ? resolveWith(response)
        : reject(
            new FolderError(
              `The server at ${address} gave no backup (${response.statusCode}). Take one from its Shop page.`,
            ),
          );
    const asked = address.startsWith('https:')
      ? getSecurely(address, { rejectUnauthorized: false }, take)
      : get(address, take);
    asked.on('error', reject);
  });
}

/** Takes a backup up in an empty folder, or an empty database of a server. */
async function restore(file: string, settings: Settings) {
  await checkBackup(file);
  if (settings.databaseUrl) {
    const folder = takeFolder(settings.folder);
    try {
      await restoreIntoServer(settings.databaseUrl, file);
      await restorePhotoFiles(folder.photos, rowsOf(file));
    } finally {
      folder.unlock();
    }
  } else {
    const isEmpty = !existsSync(settings.folder) || readdirSync(settings.folder).length === 0;
    if (!isEmpty)
      throw new FolderError(
        `${settings.folder} is not empty. Nothing was changed; name a new folder, or restore from the Shop page of the running server.`,
      );
    const folder = takeFolder(settings.folder);
    try {
      await makeDatabase(folder, file);
      installDatabase(folder);
    } finally {
      folder.unlock();
    }
  }
  say(
    `${file} is restored. Start the server on it${settings.databaseUrl ? '' : `: WICK_DATA=${settings.folder}`}.`,
  );
}

function sentenceOf(error: unknown): string {
  if (error instanceof FolderError || error instanceof ProblemError) return error.message;
  if (error instanceof DamagedError)
    return `The database is damaged: ${error.message}. Nothing was written. Start the server: its first page says what can be done.`;
  return String((error as Error).stack);
}

const [, , what, file = ''] = process.argv;
try {
  const settings = readSettings(process.env, projectFolder);
  await (what === 'restore' ? restore : backup)(resolve(file), settings);
  process.exit(0);
} catch (error) {
  process.stderr.write(`${sentenceOf(error)}\n`);
  process.exit(1);
}
