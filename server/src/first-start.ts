import { spawn } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeEmbedded } from './repo/database.ts';
import { FolderError, wordsOf } from './repo/embedded/folder-error.ts';
import { installDatabase, type DataFolder } from './repo/embedded/folder.ts';
import { seedIfEmpty } from './services/seed.ts';

/**
 * Makes the database of an empty data folder, filled with the demo workshop. It takes its place when it is whole: a start that is
 * cut short leaves nothing that counts. In a process of its own, for making one takes several times the memory of using it.
 * @returns whether there was none
 * @throws FolderError
 */
export async function makeFirst(folder: DataFolder): Promise<boolean> {
  if (existsSync(folder.database)) return false;
  rmSync(folder.unfinished, { recursive: true, force: true });
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', fileURLToPath(import.meta.url), folder.unfinished],
    {
      stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    },
  );
  let said = '';
  child.stderr!.on('data', (text) => (said += String(text)));
  const code = await new Promise<number | null>((resolve) => {
    child.on('error', (error) => {
      said += error.message;
      resolve(null);
    });
    child.on('exit', resolve);
  });
  if (code !== 0)
    throw new FolderError(
      `The database could not be made in ${folder.root} (${said.trim().slice(-300) || 'it was stopped'}). Nothing was lost; check the room on the disk and start again.`,
    );
  installDatabase(folder);
  return true;
}

async function make(path: string) {
  // Left alone by the process that asked for it, it is of no use.
  process.on('disconnect', () => process.exit(1));
  const { database, close } = await makeEmbedded(path);
  await seedIfEmpty(database);
  await close();
  process.exit(0);
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  await make(process.argv[2]!).catch((error: unknown) => {
    process.stderr.write(wordsOf(error));
    process.exit(1);
  });
