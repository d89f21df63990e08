import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The data folder cannot be used; the message says why and what to do. */
export class FolderError extends Error {}

/**
 * Takes a data folder for this process. A lock left by a process that no longer runs is taken over.
 * @returns call it to give the folder back
 * @throws FolderError when another process has it, or it cannot be written
 */
export function lockFolder(folder: string): () => void {
  const file = join(dirname(folder), `${folder.split(/[\\/]/).pop()}.lock`);
  try {
    mkdirSync(folder, { recursive: true });
    for (let attempt = 0; attempt < 2; attempt++) {
      try {
        const handle = openSync(file, 'wx');
        writeSync(handle, String(process.pid));
        closeSync(handle);
        return () => rmSync(file, { force: true });
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
        const owner = Number(readFileSync(file, 'utf8'));
        if (owner !== process.pid && isRunning(owner))
          throw new FolderError(
            `The data folder ${folder} is already open in process ${owner}. Use that one, stop it first, or start with another folder (WICK_DATA). If no such program runs, delete ${file}.`,
          );
        rmSync(file, { force: true });
      }
    }
  } catch (error) {
    if (error instanceof FolderError) throw error;
    const { code, message } = error as NodeJS.ErrnoException;
    throw new FolderError(
      code === 'ENOSPC'
        ? `The disk that holds ${folder} is full. Free some space and start again; nothing was changed.`
        : `The data folder ${folder} cannot be written (${message}). Check its permissions, or set WICK_DATA to another folder.`,
    );
  }
  throw new FolderError(
    `The data folder ${folder} could not be taken. Delete ${file} if no other copy runs.`,
  );
}

function isRunning(pid: number): boolean {
  if (!Number.isInteger(pid) || pid <= 0) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
