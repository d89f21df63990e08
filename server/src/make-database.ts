import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { programOf, QUICK_TO_START } from './own-files.ts';
import { FolderError } from './repo/embedded/folder-error.ts';
import type { DataFolder } from './repo/embedded/folder.ts';

/**
 * Makes a database beside the one there may be, filled with the demo workshop or from a backup that has been checked. Nothing counts
 * until it is installed: what is cut short leaves nothing. In a process of its own, for making one takes several times the memory of
 * using it.
 * @throws FolderError
 */
export async function makeDatabase({ root, unfinished, photos }: DataFolder, backup?: string): Promise<void> {
  rmSync(unfinished, { recursive: true, force: true });
  const asked = backup === undefined ? [unfinished] : [unfinished, backup, photos];
  const { file, execArgv } = programOf(new URL('./database-maker.ts', import.meta.url));
  const child = spawn(process.execPath, [...QUICK_TO_START, ...execArgv, fileURLToPath(file), ...asked], {
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
