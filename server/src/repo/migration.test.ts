import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { expect, test } from '@jest/globals';
import { JOB_VERSION } from '@wick/contract/job/job';
import { readJobFile } from '@wick/plan/files/job-file';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { createJobService } from '../services/job-service.ts';
import { createJobUpkeep } from '../services/job-upkeep.ts';
import { createShopService } from '../services/shop-service.ts';
import { openEmbedded } from './database.ts';
import { realDisk } from './embedded/disk.ts';
import { createReserve } from './embedded/reserve.ts';
import { createFactRepo } from './fact-repo.ts';
import { createJobRepo } from './job-repo.ts';
import { createResultRepo } from './result-repo.ts';
import { createShopRepo } from './shop-repo.ts';

const frozen = fileURLToPath(new URL('../../../contract/src/migrations/frozen/', import.meta.url));
const migrations = fileURLToPath(new URL('../../migrations/', import.meta.url));

/** The migrations as they were before documents had columns beside them. */
function earlierMigrations(folder: string): string {
  const own = join(folder, 'migrations');
  cpSync(migrations, own, { recursive: true });
  const path = join(own, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { idx: number }[] };
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.filter(({ idx }) => idx < 2) }));
  return own;
}

test('a stored database of before opens, its jobs brought up to date, their revisions kept', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wick-before-'));
  const files = readdirSync(frozen);
  const before = await PGlite.create(join(folder, 'data'));
  await migrate(drizzle(before), { migrationsFolder: earlierMigrations(folder) });
  for (const [n, file] of files.entries())
    await before.query('insert into jobs (id, revision, document, verdict) values ($1, $2, $3, $4)', [
      file,
      n + 3,
      readFileSync(join(frozen, file), 'utf8'),
      JSON.stringify({ revision: n + 3, band: 'tight', fillTime: 100, gelTime: 200 }),
    ]);
  await before.query('insert into jobs (id, revision, document) values ($1, 1, $2)', [
    'odd',
    JSON.stringify({ format: 'vivid-wick-job', version: 3, name: 'Odd one', part: 'none' }),
  ]);
  await before.close();

  const { database, close } = await openEmbedded({
    folder: join(folder, 'data'),
    disk: realDisk,
    reserve: createReserve(join(folder, 'reserve'), realDisk),
    onNotice: () => undefined,
  });
  try {
    const repo = createJobRepo(database);
    const shop = createShopService(createShopRepo(database));
    const jobs = createJobService({ jobs: repo, results: createResultRepo(database) }, shop);
    const upkeep = createJobUpkeep({ jobs: repo, facts: createFactRepo(database) }, shop);
    expect(await upkeep.bringUpToDate()).toBe(files.length);
    expect(await upkeep.bringUpToDate()).toBe(0);
    for (const [n, file] of files.entries()) {
      const read = readJobFile(readFileSync(join(frozen, file), 'utf8'));
      const { revision, document } = await jobs.get(file);
      expect([revision, document.version]).toEqual([n + 3, JOB_VERSION]);
      expect(document).toEqual(read.ok && read.value.job);
    }
    const listed = await jobs.list();
    expect(listed).toHaveLength(files.length + 1);
    expect(listed.find(({ id }) => id === 'version-1-dome-gore.json')!.name).toBe('Dome gore 7');
    // What cannot be read is left as it lies, and said.
    await expect(jobs.get('odd')).rejects.toThrow(/does not hang together. At process/);
    expect(((await repo.find('odd'))!.document as { name: string }).name).toBe('Odd one');
  } finally {
    await close();
  }
});
