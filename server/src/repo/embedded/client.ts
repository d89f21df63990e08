import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite, type Results, type Transaction } from '@electric-sql/pglite';
import type { Disk } from './disk.ts';
import { DurableFS } from './durable-fs.ts';
import type { Reserve } from './reserve.ts';

/** Write-ahead bytes after which they are worked into the tables, and after how many the room of dead rows is made free. */
const CHECKPOINT_AFTER = 4_000_000;
const VACUUM_AFTER = 16_000_000;
/** Longest that the database may answer nothing while it is asked, ms. A backup asks for longer than that, and is answered all along. */
const TIME_LIMIT = 30_000;

/** The database stopped while it was asked; it is opened anew for what comes next. */
export class StoppedError extends Error {}

export interface EmbeddedParts {
  /** The database's own folder. */
  readonly folder: string;
  readonly disk: Disk;
  readonly reserve: Reserve;
  readonly onNotice: (text: string) => void;
}

/** The part of PGlite that is asked here, over whichever instance is alive. */
export interface EmbeddedClient {
  query<T>(...asked: Parameters<PGlite['query']>): Promise<Results<T>>;
  exec(...asked: Parameters<PGlite['exec']>): ReturnType<PGlite['exec']>;
  transaction<T>(work: (on: Transaction) => Promise<T>): Promise<T>;
  /** Closes it, lets its folder be exchanged for another, and opens that; who asks meanwhile waits. */
  exchange(swap: () => void): Promise<void>;
  close(): Promise<void>;
}

interface Living {
  readonly pg: PGlite;
  /** Told when it stops, by who waits for it: a promise of its own would keep what everyone has ever been answered. */
  readonly waiting: Set<(error: StoppedError) => void>;
  readonly stop: (why: string) => void;
}

/** What work comes to, or that the database stopped meanwhile. */
function orStopped<T>(waiting: Living['waiting'], work: Promise<T>): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    waiting.add(reject);
    work.then(resolve, reject).finally(() => waiting.delete(reject));
  });
}

/** Small buffers: the host caches the files as well. With syncing on, which PGlite leaves off. */
const startOf = (folder: string) => {
  const segment = segmentOf(folder);
  const settings = [
    'wal_sync_method=fsync',
    'shared_buffers=16MB',
    'work_mem=16MB',
    `min_wal_size=${2 * segment}MB`,
    `max_wal_size=${4 * segment}MB`,
  ];
  return [
    ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
    ...settings.flatMap((setting) => ['-c', setting]),
  ];
};

/** Size of a write-ahead file, MB: those of earlier versions are larger, and the least that is kept is two of them. */
function segmentOf(folder: string): number {
  const logs = join(folder, 'pg_wal');
  const sizes = readdirSync(logs)
    .filter((name) => /^[0-9A-F]{24}$/.test(name))
    .map((name) => statSync(join(logs, name)).size);
  return Math.max(1, Math.round(Math.max(0, ...sizes) / 2 ** 20));
}

/**
 * Opens the embedded database. What it acknowledges is on the disk. On a full disk it goes on reading, refuses writes, and
 * takes them again once there is room; when it stops it is opened anew.
 */
export async function openClient({
  folder,
  disk,
  reserve,
  onNotice,
}: EmbeddedParts): Promise<EmbeddedClient> {
  let current: Promise<Living> | null = null;
  let isReadOnly = false;
  const unworked = { checkpoint: 0, vacuum: 0 };

  const makeRoom = () => {
    if (reserve.isWhole()) onNotice('The disk is full: what is being written goes on in the reserve.');
    return reserve.give();
  };

  let lastAnswer = performance.now();

  async function open(): Promise<Living> {
    // PGlite would make a new database over what is there.
    if (!existsSync(join(folder, 'PG_VERSION'))) throw new Error('its file PG_VERSION is missing');
    // The folder is held by a lock of its own: what an earlier process left says nothing.
    rmSync(join(folder, 'postmaster.pid'), { force: true });
    const waiting: Living['waiting'] = new Set();
    const stop = (why: string) => {
      current = null;
      for (const tell of waiting) tell(new StoppedError(why));
      waiting.clear();
    };
    const onWritten = (path: string, byteCount: number) => {
      if (!path.includes('pg_wal')) return;
      unworked.checkpoint += byteCount;
      unworked.vacuum += byteCount;
    };
    const onDied = () => stop('the database gave up');
    const onAnswered = () => (lastAnswer = performance.now());
    const fs = new DurableFS(folder, { disk, makeRoom, onWritten, onAnswered, onDied });
    isReadOnly = false;
    const pg = await orStopped(waiting, PGlite.create({ fs, startParams: startOf(folder) }));
    return { pg, waiting, stop };
  }

  const alive = () =>
    (current ??= open().catch((error: unknown) => {
      current = null;
      throw error;
    }));

  /** Refuses writes while the disk is full, and takes them again when it is not. */
  async function heedDisk(pg: PGlite) {
    if (reserve.isWhole() && !isReadOnly) return;
    const isFull = !reserve.refill();
    if (isFull === isReadOnly) return;
    isReadOnly = isFull;
    onNotice(isFull ? 'The disk is full: only reading goes on.' : 'There is room on the disk again.');
    await pg.exec(`set default_transaction_read_only = ${isFull}`);
    if (isFull) await pg.exec('checkpoint');
  }

  /** PostgreSQL does this by itself where it runs with helpers beside it, which the embedded one has not. */
  async function upkeep(pg: PGlite) {
    if (unworked.checkpoint < CHECKPOINT_AFTER || isReadOnly) return;
    unworked.checkpoint = 0;
    if (unworked.vacuum >= VACUUM_AFTER) {
      unworked.vacuum = 0;
      await pg.exec('vacuum');
    }
    await pg.exec('checkpoint');
  }

  async function ask<T>(work: (pg: PGlite) => Promise<T>): Promise<T> {
    const { pg, waiting, stop } = await alive();
    lastAnswer = performance.now();
    const watch = setInterval(() => {
      if (performance.now() - lastAnswer > TIME_LIMIT) stop('the database did not answer in time');
    }, TIME_LIMIT / 4);
    const whole = async () => {
      await heedDisk(pg);
      return work(pg);
    };
    const answer = orStopped(waiting, whole()).finally(() => clearInterval(watch));
    // Not before whoever asked has his answer; what comes of it is no matter of his.
    const tend = () => void orStopped(waiting, upkeep(pg)).catch(() => undefined);
    answer.then(() => setImmediate(tend)).catch(() => undefined);
    return answer;
  }

  await alive();
  return {
    query: <T>(...asked: Parameters<PGlite['query']>) => ask((pg) => pg.query<T>(...asked)),
    exec: (...asked) => ask((pg) => pg.exec(...asked)),
    transaction: <T>(work: (on: Transaction) => Promise<T>) =>
      ask((pg) => pg.transaction(work)) as Promise<T>,
    async exchange(swap) {
      const before = current;
      current = (async () => {
        await (await before)?.pg.close();
        swap();
        return open();
      })();
      await current.catch((error: unknown) => {
        current = null;
        throw error;
      });
    },
    async close() {
      const living = await current;
      current = null;
      await living?.pg.close();
    },
  };
}
