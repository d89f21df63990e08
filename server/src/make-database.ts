import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createBackupRepo } from './repo/backup-repo.ts';
import { makeEmbedded } from './repo/database.ts';
import { FolderError, wordsOf } from './repo/embedded/folder-error.ts';
import type { DataFolder } from './repo/embedded/folder.ts';
import { rowsOf } from './services/backup/backup-file.ts';
import { restorePhotoFiles } from './services/photos/photo-files.ts';
import { seedIfEmpty } from './services/seed.ts';

/**
 * Makes a database beside the one there may be, filled with the demo workshop or from a backup that has been checked. Nothing counts
 * until it is installed: what is cut short leaves nothing. In a process of its own, for making one takes several times the memory of
 * using it.
 * @throws FolderError
 */
export async function makeDatabase({ root, unfinished, photos }: DataFolder, backup?: string): Promise<void> {
  rmSync(unfinished, { recursive: true, force: true });
  const own = fileURLToPath(import.meta.url);
  const asked = backup === undefined ? [unfinished] : [unfinished, backup, photos];
  const child = spawn(process.execPath, ['--import', 'tsx', own, ...asked], {
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
  });
  let said = '';
  child.stderr!.on('data', (text) => (said += String(text)));
  const code = await new Promise<number | null>((resolve) => {
    child.on('error', (error) => {
      said += error.message;
      resolve(null);
    });
    child.on('exit', resolve);
  });
  if (code === 0) return;
  rmSync(unfinished, { recursive: true, force: true });
  throw new FolderError(
    `The database could not be made in ${root} (${said.trim().slice(-300) || 'it was stopped'}). Nothing was lost; check the room on the disk and try again.`,
  );
}

async function make(path: string, backup: string | undefined, photos: string | undefined) {
  // Left alone by the process that asked for it, it is of no use.
  process.on('disconnect', () => process.exit(1));
  if (!process.connected) process.exit(1);
  const { database, close } = await makeEmbedded(path);
  if (backup === undefined) await seedIfEmpty(database);
  else {
    await createBackupRepo(database).writeAll(rowsOf(backup));
    if (photos !== undefined) await restorePhotoFiles(photos, rowsOf(backup));
  }
  await close();
  process.exit(0);
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  await make(process.argv[2]!, process.argv[3], process.argv[4]).catch((error: unknown) => {
    process.stderr.write(wordsOf(error));
    process.exit(1);
  });
