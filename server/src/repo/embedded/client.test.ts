import { randomBytes } from 'node:crypto';
import { cpSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { openClient, StoppedError, type EmbeddedClient } from './client.ts';
import { realDisk, type Disk } from './disk.ts';
import { createReserve } from './reserve.ts';

let template: string;
beforeAll(async () => {
  template = mkdtempSync(join(tmpdir(), 'wick-template-'));
  const pg = await PGlite.create({
    dataDir: join(template, 'database'),
    initDbStartParams: ['--wal-segsize=1'],
  });
  await pg.exec('create table notes (id int primary key, text text not null)');
  await pg.close();
});
afterAll(() => rmSync(template, { recursive: true, force: true }));

/** A disk with so much room left, which can also fail outright. */
function frailDisk() {
  const state = { room: Infinity, broken: null as RegExp | null };
  const disk: Disk = {
    ...realDisk,
    beforeWrite(path, byteCount) {
      if (state.broken?.test(path)) {
        state.broken = null;
        throw Object.assign(new Error('the disk does not answer'), { code: 'EIO' });
      }
      // What lies in the database's files already takes no new room; that is left out here, so it fills up the sooner.
      if (byteCount > state.room) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      state.room -= byteCount;
    },
    free: () => state.room,
  };
  return { state, disk };
}

async function opened({ disk, state }: ReturnType<typeof frailDisk>) {
  const root = mkdtempSync(join(tmpdir(), 'wick-client-'));
  cpSync(template, root, { recursive: true });
  const whole = createReserve(join(root, 'reserve'), disk);
  expect(whole.refill()).toBe(true);
  // A piece of the reserve given up is room on the disk.
  const reserve = { ...whole, give: () => whole.give() && (state.room += 1e6) > 0 };
  const said: string[] = [];
  const folder = join(root, 'database');
  const client = await openClient({ folder, disk, reserve, onNotice: (text) => said.push(text) });
  return { client, said, folder, reserve };
}

const write = (client: EmbeddedClient, id: number, length = 40_000) =>
  client.query('insert into notes values ($1, $2)', [id, randomText(length)]);
const ids = async (client: EmbeddedClient) =>
  (await client.query<{ id: number }>('select id, md5(text) from notes order by id')).rows.map(
    ({ id }) => id,
  );
/** Nothing that packs small. */
const randomText = (length: number) => randomBytes(length).toString('base64').slice(0, length);

describe('a full disk', () => {
  test('what is being written goes through, reading goes on, writes are refused, and room heals it without a restart', async () => {
    const frail = frailDisk();
    const { client, said } = await opened(frail);
    await write(client, 1);
    frail.state.room = 100_000;
    const kept = [1];
    let refused = 0;
    for (let id = 2; id < 30; id++)
      await write(client, id).then(
        () => kept.push(id),
        (error: { code?: string }) => {
          refused += 1;
          expect(error.code).toBe('25006');
        },
      );
    expect(kept.length).toBeGreaterThan(1);
    expect(refused).toBeGreaterThan(20);
    expect(await ids(client)).toEqual(kept);
    expect(said.filter((text) => text.includes('only reading'))).toHaveLength(1);
    frail.state.room = Infinity;
    await write(client, 100);
    await client.transaction(async (on) => void (await on.query("insert into notes values (101, 'whole')")));
    expect(await ids(client)).toEqual([...kept, 100, 101]);
    await client.close();
  }, 30_000);
});

describe('a disk that fails', () => {
  test.each([
    ['write-ahead log', /pg_wal/],
    ['tables', /base/],
  ])(
    'in the midst of a write to its %s: it is told, nothing acknowledged is lost, and the next one is taken',
    async (_, where) => {
      const frail = frailDisk();
      const { client } = await opened(frail);
      const kept: number[] = [];
      let failures = 0;
      for (let id = 0; id < 40; id++) {
        if (id % 8 === 5) frail.state.broken = where;
        await write(client, id, 400_000).then(
          () => kept.push(id),
          () => (failures += 1),
        );
        if (id % 8 === 7) await client.exec('checkpoint').catch(() => undefined);
      }
      expect(failures).toBeGreaterThan(2);
      expect(await ids(client)).toEqual(expect.arrayContaining(kept));
      await client.close();
    },
    60_000,
  );

  test('a transaction that is under way when it stops is over, and everyone behind it is answered', async () => {
    const frail = frailDisk();
    const { client } = await opened(frail);
    await write(client, 1);
    const all = await Promise.allSettled([
      client.transaction(async (on) => {
        await on.query("insert into notes values (2, 'lost')");
        frail.state.broken = /pg_wal/;
      }),
      write(client, 3),
      ids(client),
    ]);
    expect(all[0]!.status).toBe('rejected');
    expect((all[0] as PromiseRejectedResult).reason).toBeInstanceOf(StoppedError);
    expect(await ids(client)).not.toContain(2);
    await write(client, 4);
    expect(await ids(client)).toEqual(expect.arrayContaining([1, 4]));
    await client.close();
  }, 30_000);
});

test('what a stopped process has left behind does not keep it from opening', async () => {
  const frail = frailDisk();
  const { client, folder, reserve } = await opened(frail);
  await write(client, 1);
  // Not closed: as after a kill, with its own mark still in the folder, and once empty as a power cut leaves it.
  writeFileSync(join(folder, 'postmaster.pid'), '');
  const again = await openClient({ folder, disk: frail.disk, reserve, onNotice: () => undefined });
  expect(await ids(again)).toEqual([1]);
  await again.close();
}, 30_000);

test('a folder that has lost its mark is not taken for an empty one, and nothing in it is touched', async () => {
  const root = mkdtempSync(join(tmpdir(), 'wick-client-'));
  cpSync(template, root, { recursive: true });
  const folder = join(root, 'database');
  rmSync(join(folder, 'PG_VERSION'));
  const files = () => readdirSync(folder, { recursive: true }).sort();
  const before = files();
  const { disk } = frailDisk();
  const reserve = createReserve(join(root, 'reserve'), disk);
  await expect(openClient({ folder, disk, reserve, onNotice: () => undefined })).rejects.toThrow(
    /PG_VERSION/,
  );
  expect(files()).toEqual(before);
});
