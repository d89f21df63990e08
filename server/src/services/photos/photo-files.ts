import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** It has its name only once all of it is there. */
export function writeWhole(path: string, data: Uint8Array): void {
  const unfinished = `${path}.unfinished`;
  writeFileSync(unfinished, data, { mode: 0o600, flush: true });
  renameSync(unfinished, path);
}

/** Backups hold pictures beside the rows of the database: a file a row of this. */
export const PHOTO_FILES = 'photoFiles';

/** Every picture file of a folder. */
export function* photoFiles(folder: string): Generator<{ runId: string; name: string; data: string }> {
  if (!existsSync(folder)) return;
  for (const runId of readdirSync(folder).sort())
    for (const name of readdirSync(join(folder, runId)).sort())
      if (name.endsWith('.jpg'))
        yield { runId, name, data: readFileSync(join(folder, runId, name)).toString('base64') };
}

const SAFE = /^[A-Za-z0-9_-]{1,40}$/;

/** Puts the picture files of a backup where they were; what is there stays, and what has a name of its own making is left out. */
export async function restorePhotoFiles(
  folder: string,
  rows: AsyncIterable<readonly [table: string, row: Readonly<Record<string, unknown>>]>,
): Promise<void> {
  for await (const [table, { runId, name, data }] of rows) {
    if (table !== PHOTO_FILES) continue;
    const [id, ending] = String(name).split(/\.(?=(?:large|small)\.jpg$)/);
    const isSafe = SAFE.test(String(runId)) && SAFE.test(id ?? '') && ending !== undefined;
    const path = join(folder, String(runId), String(name));
    if (!isSafe || typeof data !== 'string' || existsSync(path)) continue;
    mkdirSync(join(folder, String(runId)), { recursive: true, mode: 0o700 });
    writeWhole(path, Buffer.from(data, 'base64'));
  }
}
