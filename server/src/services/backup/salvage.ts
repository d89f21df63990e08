import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { openDamaged } from '../../repo/database.ts';
import type { DataFolder } from '../../repo/embedded/folder.ts';
import { createServices } from '../services.ts';
import { writeOpenFiles } from './open-files.ts';

/**
 * Every job that can still be read of a damaged database, as open files in a ZIP. Works on a copy: what is damaged stays as it is.
 * @returns how many jobs are in it, and how many things are not
 */
export async function salvage(
  { passing, database }: Pick<DataFolder, 'passing' | 'database'>,
  onChunk: (chunk: Uint8Array) => void,
): Promise<{ jobs: number; lost: number }> {
  const copy = join(passing, 'salvage');
  rmSync(copy, { recursive: true, force: true });
  try {
    cpSync(database, copy, { recursive: true });
    const opened = await openDamaged(copy);
    const found = await writeOpenFiles(createServices(opened.database), onChunk);
    await opened.close();
    return found;
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}
