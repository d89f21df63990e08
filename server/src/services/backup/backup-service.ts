import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { BackupFile } from '@wick/contract/api';
import type { BackupRepo } from '../../repo/backup-repo.ts';
import { PHOTO_FILES, photoFiles } from '../photos/photo-files.ts';
import { writeBackup } from './backup-file.ts';

/** Nightly ones that are kept. */
const KEPT = 7;
const NIGHTLY = 'nightly ';
const ENDING = '.wick-backup.zip';
const DATE_LENGTH = 10;

export type BackupService = ReturnType<typeof createBackupService>;

export interface BackupFolders {
  /** Where those of the nights lie. */
  readonly folder: string;
  /** Where one that is taken away lies until it is. */
  readonly passing: string;
  /** Pictures, which go into it with the records. */
  readonly photos: string;
}

/** Backups of everything, each checked when it is written. */
export function createBackupService(
  repo: Pick<BackupRepo, 'readAll'>,
  { folder, passing, photos }: BackupFolders,
  now = () => new Date(),
) {
  const nightlies = () =>
    existsSync(folder)
      ? readdirSync(folder)
          .filter((name) => name.startsWith(NIGHTLY) && name.endsWith(ENDING))
          .sort()
          .reverse()
      : [];

  async function write(where: string, name: string): Promise<string> {
    mkdirSync(where, { recursive: true, mode: 0o700 });
    const path = join(where, name);
    await writeBackup(path, now().toISOString(), async (onRow) => {
      await repo.readAll(onRow);
      for (const row of photoFiles(photos)) onRow(PHOTO_FILES, row);
    });
    return path;
  }

  return {
    /** One to take away; it is the caller's to delete. @returns its path */
    make: () => write(passing, `${randomUUID()}${ENDING}`),

    /** The one of the day, once; of earlier ones the last seven are kept. */
    async makeNightly(): Promise<void> {
      const ofToday = `${NIGHTLY}${stamp(now()).slice(0, DATE_LENGTH)}`;
      if (nightlies().some((name) => name.startsWith(ofToday))) return;
      await write(folder, `${NIGHTLY}${stamp(now())}${ENDING}`);
      for (const name of nightlies().slice(KEPT)) rmSync(join(folder, name), { force: true });
    },

    /** Newest first. */
    nightlies: (): BackupFile[] =>
      nightlies().map((name) => ({ name, byteCount: statSync(join(folder, name)).size })),

    /** Null where there is none of that name. */
    pathOf: (name: string): string | null => (nightlies().includes(name) ? join(folder, name) : null),
  };
}

/** A time as a name that sorts by it. */
export const stamp = (time: Date) => time.toISOString().slice(0, 19).replaceAll(':', '.');
