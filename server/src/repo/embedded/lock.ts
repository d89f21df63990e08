import { copyFileSync, constants, linkSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FolderError } from './folder-error.ts';
import { processMark } from './process-mark.ts';

interface Owner {
  readonly pid: number;
  readonly mark: string;
  /** Where it answers, once it does. */
  readonly address?: string;
}

/** Another process has the folder. */
export class LockedError extends FolderError {
  constructor(
    message: string,
    readonly address: string | null,
  ) {
    super(message);
  }
}

export interface FolderLock {
  readonly unlock: () => void;
  readonly tellAddress: (address: string) => void;
}

/**
 * Takes a data folder for this process. A lock left by a process that no longer runs is taken over, also where another program
 * has been given its number since.
 * @returns to give the folder back, and to say where this process answers
 * @throws LockedError when another process has it
 */
export function lockFolder(folder: string): FolderLock {
  const file = join(folder, 'lock');
  const own = join(folder, `lock.${process.pid}`);
  const mark = processMark(process.pid) ?? '';
  // Whole before it has its name: nobody finds half of it.
  writeFileSync(own, JSON.stringify({ pid: process.pid, mark } satisfies Owner));
  try {
    for (let attempt = 0; attempt < 2; attempt++)
      try {
        nameOnce(own, file);
        return {
          unlock: () => rmSync(file, { force: true }),
          tellAddress: (address) => writeFileSync(file, JSON.stringify({ pid: process.pid, mark, address })),
        };
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
        const owner = readOwner(file);
        if (owner && owner.pid !== process.pid && isSame(owner))
          throw new LockedError(
            `The data folder ${folder} is already open in process ${owner.pid}. Use that one, stop it first, or start with another folder (WICK_DATA).`,
            owner.address ?? null,
          );
        rmSync(file, { force: true });
      }
  } finally {
    rmSync(own, { force: true });
  }
  throw new FolderError(
    `The data folder ${folder} could not be taken. Delete ${file} if no other copy runs.`,
  );
}

/** Fails where the name is taken. */
function nameOnce(own: string, file: string) {
  try {
    linkSync(own, file);
  } catch (error) {
    // Some shares and sticks know no second name of a file.
    if (!['EPERM', 'ENOTSUP', 'ENOSYS'].includes(String((error as NodeJS.ErrnoException).code))) throw error;
    copyFileSync(own, file, constants.COPYFILE_EXCL);
  }
}

/** Null where nothing readable is there. */
function readOwner(file: string): Owner | null {
  try {
    const { pid, mark, address } = JSON.parse(readFileSync(file, 'utf8')) as Partial<Owner>;
    return typeof pid === 'number' && typeof mark === 'string' ? { pid, mark, address } : null;
  } catch {
    return null;
  }
}

function isSame({ pid, mark }: Owner): boolean {
  const now = processMark(pid);
  return now !== null && (now === mark || now === '' || mark === '');
}
