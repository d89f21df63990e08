import { randomUUID } from 'node:crypto';
import {
  chmodSync,
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { syncPath } from './disk.ts';
import { FolderError, wordsOf } from './folder-error.ts';
import { lockFolder, type FolderLock } from './lock.ts';
import { processMark } from './process-mark.ts';

/** Where things lie in the data folder. */
export interface DataFolder extends FolderLock {
  readonly root: string;
  readonly database: string;
  /** A database that is being made; it takes its place when it is whole. */
  readonly unfinished: string;
  readonly reserve: string;
  readonly backups: string;
  /** Pictures of runs, beside the database that knows of them. */
  readonly photos: string;
  /** For files on their way in or out; emptied at each start. */
  readonly passing: string;
}

/**
 * Takes a data folder, made if need be, for this process alone and its user alone.
 * @throws FolderError
 */
export function takeFolder(wanted: string): DataFolder {
  const root = usable(wanted);
  const lock = lockFolder(root);
  const database = join(root, 'database');
  try {
    moveFromRoot(root, database);
    finishInstalling(root, database);
    clearUnfinished(root);
    rmSync(join(root, PASSING), { recursive: true, force: true });
    mkdirSync(join(root, PASSING), { mode: 0o700 });
    keepPrivate(root);
  } catch (error) {
    lock.unlock();
    throw cannot(root, error);
  }
  return {
    root,
    database,
    unfinished: join(root, `${UNFINISHED} ${randomUUID()}`),
    reserve: join(root, 'reserve'),
    backups: join(root, 'backups'),
    photos: join(root, 'photos'),
    passing: join(root, PASSING),
    ...lock,
  };
}

const PASSING = 'passing';
/** With a name of its own at each start: who was at it for a process that was killed may still be writing. */
const UNFINISHED = 'database.new';
/** A database that is whole and about to take its place. */
const READY = 'database.ready';

function usable(wanted: string): string {
  try {
    mkdirSync(wanted, { recursive: true, mode: 0o700 });
    return realpathSync(wanted);
  } catch (error) {
    throw cannot(wanted, error);
  }
}

function cannot(folder: string, error: unknown): FolderError {
  if (error instanceof FolderError) return error;
  return new FolderError(
    (error as NodeJS.ErrnoException).code === 'ENOSPC'
      ? `The disk that holds ${folder} is full. Free some space and start again; nothing was changed.`
      : `The data folder ${folder} cannot be written (${wordsOf(error)}). Check its permissions, or set WICK_DATA to another folder.`,
  );
}

/** What somebody still writes to is cleared away at another start. */
function clearUnfinished(root: string) {
  for (const name of readdirSync(root).filter((own) => own.startsWith(UNFINISHED)))
    try {
      rmSync(join(root, name), { recursive: true, force: true });
    } catch {
      continue;
    }
}

/** Earlier versions kept the database in the root itself, and their lock beside it; a move cut short is finished. */
function moveFromRoot(root: string, database: string) {
  const moving = join(root, 'database.moving');
  if (!existsSync(join(root, 'PG_VERSION')) && !existsSync(moving)) return;
  const oldLock = join(dirname(root), `${basename(root)}.lock`);
  if (existsSync(oldLock)) {
    const pid = Number(readFileSync(oldLock, 'utf8'));
    if (processMark(pid) !== null)
      throw new FolderError(
        `The data folder ${root} may be open in process ${pid}, an earlier version. Stop that first. If no such program runs, delete ${oldLock}.`,
      );
    rmSync(oldLock);
  }
  mkdirSync(moving, { recursive: true });
  const isDatabases = (name: string) =>
    /^(pg_|base$|global$|PG_VERSION$|postgresql\.|postmaster\.)/.test(name);
  for (const name of readdirSync(root).filter(isDatabases)) renameSync(join(root, name), join(moving, name));
  syncPath(moving);
  renameSync(moving, database);
  syncPath(root);
}

/** Nobody else on this machine reads it, files of earlier versions included. */
function keepPrivate(path: string) {
  const about = lstatSync(path);
  if (about.isSymbolicLink()) return;
  const wanted = about.isDirectory() ? 0o700 : 0o600;
  if ((about.mode & 0o777) !== wanted) chmodSync(path, wanted);
  if (about.isDirectory()) for (const name of readdirSync(path)) keepPrivate(join(path, name));
}

/** Everything under a path, then the path itself, onto the disk. */
function syncTree(path: string): void {
  if (lstatSync(path).isDirectory()) for (const name of readdirSync(path)) syncTree(join(path, name));
  syncPath(path);
}

/** A database that is whole takes its place. @param keepAs name for the one that is there now */
export function installDatabase({ root, database, unfinished }: DataFolder, keepAs?: string): void {
  syncTree(unfinished);
  renameSync(unfinished, join(root, READY));
  syncPath(root);
  if (keepAs !== undefined && existsSync(database)) renameSync(database, join(root, keepAs));
  finishInstalling(root, database);
}

/** Also where it was cut short: the one before is out of its place, or still in it, and then it stays. */
function finishInstalling(root: string, database: string) {
  const ready = join(root, READY);
  if (!existsSync(ready)) return;
  if (existsSync(database)) rmSync(ready, { recursive: true });
  else renameSync(ready, database);
  syncPath(root);
}
