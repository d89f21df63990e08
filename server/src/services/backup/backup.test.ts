import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { demoJobs } from '@wick/plan/demo/jobs';
import { demoRuns } from '@wick/plan/demo/runs';
import { readJobFile } from '@wick/plan/files/job-file';
import { readCsv } from '@wick/plan/files/library/sheets';
import { strFromU8, unzipSync } from 'fflate';
import { createBackupRepo } from '../../repo/backup-repo.ts';
import type { OpenedDatabase } from '../../repo/database.ts';
import { openEmpty } from '../../test/database.ts';
import { createFactRepo } from '../../repo/fact-repo.ts';
import { ProblemError } from '../problem.ts';
import { seedIfEmpty } from '../seed.ts';
import { createServices, type Services } from '../services.ts';
import { checkBackup, rowsOf, writeBackup } from './backup-file.ts';
import { createBackupService } from './backup-service.ts';
import { writeOpenFiles } from './open-files.ts';

const folder = mkdtempSync(join(tmpdir(), 'wick-backup-'));
let opened: OpenedDatabase;
let services: Services;
beforeAll(async () => {
  opened = await openEmpty();
  services = createServices(opened.database);
  await seedIfEmpty(opened.database);
});
afterAll(() => opened.close());

/** A run with what was said in it, and two thousand and some readings of a gauge. */
async function withRun({ jobs, runs, instruments, readings }: Services, number: number) {
  const [job] = await jobs.list();
  const run = { id: `run-${number}`, kind: 'part', speed: 1, seed: 0 } as const;
  await runs.add(job!.id, run);
  await runs.append(run.id, 'tablet', [
    { id: 'first', at: '2026-03-14T09:00:00Z', by: 'Ada', body: { kind: 'note', text: '=hiss' } },
  ]);
  const gauge = {
    measures: 'absolutePressure',
    unit: 'mbar',
    resolution: 10,
    noise: 5,
    kind: 'hand',
  } as const;
  await instruments.add({ ...gauge, id: `gauge-${number}`, name: 'Gauge' });
  const all = Array.from({ length: 4321 }, (_, n) => ({ id: `${n}`, at: 1.7e12 + n * 1000, value: n }));
  await readings.append(await instruments.find(`gauge-${number}`), all);
}

const rows = async ({ database }: OpenedDatabase) => {
  const all: unknown[] = [];
  await createBackupRepo(database).readAll((table, row) => void all.push([table, row]));
  return JSON.parse(JSON.stringify(all)) as unknown[];
};
const make = (name: string) => {
  const path = join(folder, name);
  return writeBackup(path, '2026-11-26T10:00:00Z', createBackupRepo(opened.database).readAll).then(
    (manifest) => ({ path, manifest }),
  );
};

async function restored(path: string): Promise<OpenedDatabase> {
  const fresh = await openEmpty();
  await checkBackup(path);
  await createBackupRepo(fresh.database).writeAll(rowsOf(path));
  return fresh;
}

describe('a backup', () => {
  test('has runs, their entries and every reading; they go on counting, and their sums are made anew', async () => {
    await withRun(services, 1);
    const { path } = await make('run.zip');
    const copy = await restored(path);
    expect(await rows(copy)).toEqual(await rows(opened));
    const own = createServices(copy.database);
    const windowOf = async ({ instruments }: Services) =>
      instruments.window('gauge-1', 1.7e12, 1.7e12 + 5e6, 50);
    expect(await windowOf(own)).toEqual(await windowOf(services));
    const spans = await copy.database.execute(
      'select sum(count)::int as n from reading_spans where width = 32',
    );
    expect((spans as unknown as { rows: { n: number }[] }).rows[0]!.n).toBe(4321);
    await withRun(own, 2);
    expect((await own.instruments.samples('gauge-2', 1, 8e12, 100)).count).toBe(4321);
    await copy.close();
  }, 60_000);

  test('taken while people write holds one moment of it, and comes back the same', async () => {
    const ids = (await services.jobs.list()).map(({ id }) => id);
    let [isOver, rounds] = [false, 0];
    // A mark goes through all jobs in turn: at any moment they differ by one write at most.
    const writer = (async () => {
      for (let round = 1; !isOver; rounds = round++)
        for (const id of ids) {
          const { revision, document } = await services.jobs.get(id);
          await services.jobs.write(id, revision, { ...document, name: `Round ${round}` });
          await new Promise((resolve) => setTimeout(resolve, 1));
        }
    })();
    while (rounds < 2) await new Promise((resolve) => setTimeout(resolve, 5));
    const { path } = await make('under-load.zip');
    isOver = true;
    await writer;
    const copy = await restored(path);
    const names = (await createServices(copy.database).jobs.list()).map(({ name }) =>
      Number(name.split(' ')[1]),
    );
    expect(Math.max(...names) - Math.min(...names)).toBeLessThanOrEqual(1);
    expect(Math.min(...names)).toBeGreaterThan(0);
    const again = join(folder, 'again.zip');
    await writeBackup(again, '2026-11-26T10:00:00Z', createBackupRepo(copy.database).readAll);
    expect((await checkBackup(again)).tables).toEqual((await checkBackup(path)).tables);
    await copy.close();
  }, 60_000);

  test('brings back every version, time and order, and counts on; who is let in stays behind', async () => {
    await createFactRepo(opened.database).keep('passPhrase', 'a secret');
    const [first] = await services.library.list();
    await services.library.write(first!.revision, { ...first!.material, name: 'Renamed' });
    const before = await rows(opened);
    const copy = await restored((await make('whole.zip')).path);
    expect(await rows(copy)).toEqual(before);
    expect(await createFactRepo(copy.database).find('passPhrase')).toBeNull();
    const { library, jobs } = createServices(copy.database);
    const [again] = await library.list();
    await library.write(again!.revision, { ...again!.material, name: 'Renamed twice' });
    expect(
      (await library.history(again!.material.id)).map(({ material }) => material.name).slice(0, 2),
    ).toEqual(['Renamed twice', 'Renamed']);
    expect((await jobs.revisions((await jobs.list())[0]!.id)).length).toBeGreaterThan(0);
    await copy.close();
  }, 60_000);

  test('that is cut or altered is refused, wherever it is', async () => {
    const { path } = await make('victim.zip');
    const bytes = readFileSync(path);
    const hurt = join(folder, 'hurt.zip');
    let refused = 0;
    for (let n = 0; n < 120; n++) {
      const at = Math.floor((bytes.length * n) / 120);
      const copy = Buffer.from(bytes);
      if (n % 3 === 0) writeFileSync(hurt, copy.subarray(0, at));
      else {
        copy[at]! ^= 1 << (n % 8);
        writeFileSync(hurt, copy);
      }
      const found = await checkBackup(hurt).catch((error: unknown) => error);
      if (found instanceof ProblemError) {
        expect(found.code).toBe('BAD_BACKUP');
        refused += 1;
        continue;
      }
      // A bit of the archive's own bookkeeping, that nobody reads: what it holds is what was written.
      expect((found as { tables: unknown }).tables).toEqual((await checkBackup(path)).tables);
    }
    expect(refused).toBeGreaterThan(100);
  }, 60_000);

  test('that is none of this program, or of a newer one, is refused with a sentence', async () => {
    const path = join(folder, 'other.zip');
    for (const bytes of [
      Buffer.from('no archive'),
      Buffer.alloc(0),
      readFileSync(new URL(import.meta.url)),
    ]) {
      writeFileSync(path, bytes);
      await expect(checkBackup(path)).rejects.toThrow(/The backup is not used\..*Nothing was changed\./);
    }
  });

  test('is made for the night, and the last seven are kept', async () => {
    let day = 0;
    const own = createBackupService(
      createBackupRepo(opened.database),
      {
        folder: mkdtempSync(join(tmpdir(), 'wick-nights-')),
        passing: folder,
        photos: join(folder, 'photos'),
      },
      () => new Date(Date.UTC(2026, 10, 1 + day)),
    );
    for (day = 0; day < 9; day++) {
      await own.makeNightly();
      // One a day, however often it is looked whether there is one.
      await own.makeNightly();
    }
    const kept = own.nightlies();
    expect(kept.map(({ name }) => name.slice(8, 18))).toEqual(
      [9, 8, 7, 6, 5, 4, 3].map((date) => `2026-11-0${date}`),
    );
    await checkBackup(own.pathOf(kept[0]!.name)!);
    expect(own.pathOf('../../etc/passwd')).toBeNull();
  }, 60_000);
});

test('open files: every job reads again, the library too; what cannot be read is put beside, and told', async () => {
  const copy = await openEmpty();
  await seedIfEmpty(copy.database);
  await copy.database.execute(
    `update jobs set document = '{"format": "vivid-wick-job", "version": 3, "name": "Odd"}' where name = 'Dome gore 7'`,
  );
  const own = createServices(copy.database);
  await withRun(own, 1);
  const chunks: Uint8Array[] = [];
  const count = await writeOpenFiles(own, (chunk) => void chunks.push(chunk));
  expect(count).toEqual({ jobs: demoJobs.length - 1, lost: 1 });
  const files = Object.entries(unzipSync(Buffer.concat(chunks))).map(
    ([name, bytes]) => [name, strFromU8(bytes)] as const,
  );
  const ofFolder = (start: string) =>
    files.filter(([name]) => name.startsWith(start)).map(([, text]) => text);
  expect(ofFolder('jobs/').map((text) => readJobFile(text).ok)).toEqual(demoJobs.slice(1).map(() => true));
  expect(ofFolder('unreadable/').map((text) => (JSON.parse(text) as { name: string }).name)).toEqual(['Odd']);
  const library = readCsv(ofFolder('library.csv')[0]!);
  expect(library.ok && library.value.length).toBe(
    (await createServices(copy.database).library.list()).length,
  );
  const counts = ofFolder('runs/').map((text) => (JSON.parse(text) as { entries: unknown[] }).entries.length);
  const bySize = (a: number, b: number) => a - b;
  expect(counts.sort(bySize)).toEqual([1, ...demoRuns.map(({ entries }) => entries.length)].sort(bySize));
  const readings = ofFolder('readings.csv')[0]!.split('\r\n');
  expect(readings).toHaveLength(4322);
  expect(readings[2]).toBe('gauge-1,1,2023-11-14T22:13:21.000Z,1');
  expect(ofFolder('what is missing')[0]).toContain('does not hang together');
  await copy.close();
}, 60_000);
