import { createHash, randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serverFolder } from '../own-files.ts';
import { copyOfEmpty, openInMemory, type OpenedDatabase } from '../repo/database.ts';

/** An empty database in memory. To make one takes seconds: it is made once for these tables, and copied by every test that asks. */
export async function openEmpty(): Promise<OpenedDatabase> {
  const path = join(tmpdir(), `wick-empty-${markOfTables()}.tar`);
  if (!existsSync(path)) {
    // Another process may make it as well; whichever is whole last stays.
    const own = `${path}.${randomUUID()}`;
    writeFileSync(own, Buffer.from(await (await copyOfEmpty()).arrayBuffer()));
    renameSync(own, path);
  }
  return openInMemory(new Blob([readFileSync(path)]));
}

/** Changes with the migrations and with the packages, so with the database that they run in. */
function markOfTables(): string {
  const hash = createHash('sha256');
  const folder = join(serverFolder, 'migrations');
  for (const name of readdirSync(folder)
    .filter((one) => one.endsWith('.sql'))
    .sort())
    hash.update(name).update(readFileSync(join(folder, name)));
  hash.update(readFileSync(join(serverFolder, '..', 'package-lock.json')));
  return hash.digest('hex').slice(0, 16);
}
