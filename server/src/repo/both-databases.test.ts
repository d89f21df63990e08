import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { demoJobs } from '@wick/plan/demo/jobs';
import { demoMaterials } from '@wick/plan/demo/materials';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { restoreIntoServer } from '../open-store.ts';
import { rowsOf, writeBackup } from '../services/backup/backup-file.ts';
import { ProblemError } from '../services/problem.ts';
import { seedIfEmpty } from '../services/seed.ts';
import { createServices, type Services } from '../services/services.ts';
import { hasPostgres, startPostgres, type TestServer } from '../test/postgres.ts';
import { createBackupRepo } from './backup-repo.ts';
import { openServer, type OpenedDatabase } from './database.ts';
import { openEmpty } from '../test/database.ts';
import { createDeviceRepo } from './device-repo.ts';

let server: TestServer | null = null;
beforeAll(async () => {
  if (hasPostgres) server = await startPostgres();
});
afterAll(() => server?.stop());

/** The embedded database, and a PostgreSQL server where one is installed: on a machine that runs the whole test it is. */
const databases: (readonly [string, () => Promise<OpenedDatabase>])[] = [
  ['the embedded database', openEmpty],
  ...(hasPostgres ? [['a PostgreSQL server', () => openServer(server!.newDatabase())] as const] : []),
];

describe.each(databases)('on %s', (_, open) => {
  let opened: OpenedDatabase;
  let services: Services;
  beforeAll(async () => {
    opened = await open();
    services = createServices(opened.database);
  });
  afterAll(() => opened.close());

  const codeOf = (work: Promise<unknown>) =>
    work.then(
      () => 'done',
      (error: unknown) => (error instanceof ProblemError ? error.code : String(error)),
    );
  const renamed = (document: Job, name: string): Job => ({ ...document, mould: null, name });

  test('the workshop is seeded once, also by several starts at once', async () => {
    const all = await Promise.all([0, 1].map(() => seedIfEmpty(opened.database)));
    expect(all.filter(Boolean)).toHaveLength(1);
    expect(await services.jobs.list()).toHaveLength(demoJobs.length);
    expect(await services.library.list()).toHaveLength(demoMaterials.length);
    expect(await services.moulds.list()).toHaveLength(demoMoulds.length);
  });

  test('of twenty writes at once from one revision one wins, and the state before it is kept once', async () => {
    const { id, document } = await services.jobs.create({ name: 'Raced' });
    const codes = await Promise.all(
      Array.from({ length: 20 }, (_unused, n) =>
        codeOf(services.jobs.write(id, 1, renamed(document, `Writer ${n}`))),
      ),
    );
    expect(codes.filter((code) => code === 'done')).toHaveLength(1);
    expect(codes.filter((code) => code === 'STALE')).toHaveLength(19);
    expect((await services.jobs.revisions(id)).map(({ revision }) => revision)).toEqual([1]);
    expect((await services.jobs.revision(id, 1)).document.name).toBe('Raced');
  });

  test('a mould that is deleted while jobs are put on it is either kept with them or gone without', async () => {
    const { id, document } = await services.jobs.create({ name: 'Moved' });
    const mould = { ...demoMoulds[0]!, id: 'fleeting', history: [] };
    for (let round = 0; round < 15; round++) {
      await services.moulds.write(0, mould);
      const { revision } = await services.jobs.get(id);
      const on = { ...renamed(document, 'Moved'), mould: { id: 'fleeting', name: 'Fleeting' } };
      const [taken, gone] = await Promise.all([
        codeOf(services.jobs.write(id, revision, on)),
        codeOf(services.moulds.remove('fleeting', 1)),
      ]);
      expect([
        ['done', 'IN_USE'],
        ['NOT_FOUND', 'done'],
      ]).toContainEqual([taken, gone]);
      const now = await services.jobs.get(id);
      await services.jobs.write(id, now.revision, renamed(document, 'Moved'));
      await codeOf(services.moulds.remove('fleeting', 1));
    }
  });

  test('two imports at once from the same look at the library: one is taken in whole, the other not at all', async () => {
    const [entry] = await services.library.list();
    const file = (name: string) => [
      { revision: entry!.revision, material: { ...entry!.material, name } },
      { revision: 0, material: { ...entry!.material, id: `new-${name.toLowerCase()}`, name } },
    ];
    const codes = await Promise.all(
      ['One', 'Two'].map((name) => codeOf(services.library.importAll(file(name)))),
    );
    expect([...codes].sort()).toEqual(['STALE', 'done']);
    const winner = codes[0] === 'done' ? 'One' : 'Two';
    const names = (await services.library.list()).map(({ material }) => material.name);
    expect(names.filter((name) => name === winner)).toHaveLength(2);
    expect((await services.library.history(entry!.material.id))[0]!.material.name).toBe(winner);
  });

  test('a thousand library rows go in at once, and again as they were', async () => {
    const base = demoMaterials.find(({ kind }) => kind === 'sundry') ?? demoMaterials[0]!;
    const many = Array.from({ length: 1000 }, (_unused, n) => ({
      revision: 0,
      material: { ...base, id: `row-${n}`, name: `Row ${n}` },
    }));
    expect(await services.library.importAll(many)).toEqual({ added: 1000, changed: 0, same: 0 });
    expect(await services.library.importAll(many)).toEqual({ added: 0, changed: 0, same: 1000 });
  });

  test('a device’s word is exchanged once, however many ask at the same time', async () => {
    const devices = createDeviceRepo(opened.database);
    await devices.add({
      id: 'd',
      name: 'Tablet',
      access: 'full',
      linkId: null,
      wordHash: 'a',
      wordSince: new Date(),
    });
    const all = await Promise.all(
      ['b', 'c', 'd'].map((to) =>
        devices.changeWord('d', 'a', { wordHash: to, earlierHash: 'a', wordSince: new Date() }),
      ),
    );
    expect(all.filter(Boolean)).toHaveLength(1);
  });

  test('deleted jobs go after thirty days of use, with their versions and results', async () => {
    const { id } = await services.jobs.create({ name: 'Gone' });
    await services.jobs.remove(id, 1);
    for (let day = 1; day <= 30; day++) await services.upkeep.passDay(`2027-03-${day}`);
    expect(await codeOf(services.jobs.restore(id))).toBe('NOT_FOUND');
  });
});

(hasPostgres ? test : test.skip)(
  'a backup moves everything from one kind to the other and back',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'wick-move-'));
    const embedded = await openEmpty();
    await seedIfEmpty(embedded.database);
    const { jobs } = createServices(embedded.database);
    const [first] = await jobs.list();
    const { revision, document } = await jobs.get(first!.id);
    await jobs.write(first!.id, revision, { ...document, name: 'Moved over' });
    const backupOf = async ({ database }: OpenedDatabase, name: string) => {
      const path = join(folder, name);
      const { tables } = await writeBackup(path, '2026-11-26T10:00:00Z', createBackupRepo(database).readAll);
      return { path, tables: Object.fromEntries(tables.map((table) => [table.name, table.rowCount])) };
    };
    const out = await backupOf(embedded, 'embedded.zip');
    const url = server!.newDatabase();
    await restoreIntoServer(url, out.path);
    await expect(restoreIntoServer(url, out.path)).rejects.toThrow(/not empty/);
    const onServer = await openServer(url);
    const back = await backupOf(onServer, 'server.zip');
    expect(back.tables).toEqual(out.tables);
    const again = await openEmpty();
    await createBackupRepo(again.database).writeAll(rowsOf(back.path));
    const rows = async (opened: OpenedDatabase) => {
      const all: string[] = [];
      await createBackupRepo(opened.database).readAll(
        (table, row) => void all.push(JSON.stringify([table, row])),
      );
      return all.sort();
    };
    expect(await rows(again)).toEqual(await rows(embedded));
    await Promise.all([embedded.close(), onServer.close(), again.close()]);
  },
  60_000,
);
