import { spawn, spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { FolderError } from './folder-error.ts';
import { installDatabase, takeFolder } from './folder.ts';
import { lockFolder } from './lock.ts';
import { processMark } from './process-mark.ts';

const newFolder = () => mkdtempSync(join(tmpdir(), 'wick-lock-'));
const leave = (folder: string, owner: unknown) =>
  writeFileSync(join(folder, 'lock'), typeof owner === 'string' ? owner : JSON.stringify(owner));
const ownerOf = (folder: string) => JSON.parse(readFileSync(join(folder, 'lock'), 'utf8')) as { pid: number };

describe('data folder lock', () => {
  test('another living process keeps the folder; the message names it and the way out', () => {
    const folder = newFolder();
    leave(folder, { pid: process.ppid, mark: processMark(process.ppid) });
    expect(() => lockFolder(folder)).toThrow(FolderError);
    expect(() => lockFolder(folder)).toThrow(`already open in process ${process.ppid}`);
    expect(ownerOf(folder).pid).toBe(process.ppid);
  });

  test.each([
    ['a dead process', () => ({ pid: spawnSync(process.execPath, ['-e', '']).pid, mark: 'then' })],
    ['a process whose number another program has now', () => ({ pid: process.ppid, mark: 'another start' })],
    ['a power cut while it was written', () => ''],
    ['something unreadable', () => '{"pid":'],
  ])('left by %s it is taken over, and given back', (_, owner) => {
    const folder = newFolder();
    leave(folder, owner());
    const { unlock } = lockFolder(folder);
    expect(ownerOf(folder).pid).toBe(process.pid);
    unlock();
    expect(readdirSync(folder)).toEqual([]);
  });

  test('a process is told from a later one of its number by when it began', () => {
    expect(processMark(process.pid)).toBe(processMark(process.pid));
    const child = spawn(process.execPath, ['-e', 'setTimeout(() => undefined, 20000)']);
    expect(processMark(child.pid!)).not.toBe(processMark(process.pid));
    child.kill();
    expect(processMark(spawnSync(process.execPath, ['-e', '']).pid)).toBeNull();
    expect(processMark(-1)).toBeNull();
  });
});

describe('a data folder', () => {
  test('a place that cannot be a folder is refused with a hint', () => {
    const file = join(newFolder(), 'file');
    writeFileSync(file, '');
    expect(() => takeFolder(join(file, 'data'))).toThrow(/cannot be written .* WICK_DATA/);
  });

  test('is for its user alone, through a link as well', () => {
    const folder = newFolder();
    const root = join(folder, 'data');
    mkdirSync(join(root, 'database'), { recursive: true });
    writeFileSync(join(root, 'database', 'PG_VERSION'), '18', { mode: 0o666 });
    symlinkSync(root, join(folder, 'link'));
    const taken = takeFolder(join(folder, 'link'));
    expect(taken.root).toBe(root);
    const modeOf = (path: string) => statSync(path).mode & 0o777;
    expect([modeOf(root), modeOf(taken.database), modeOf(join(taken.database, 'PG_VERSION'))]).toEqual([
      0o700, 0o700, 0o600,
    ]);
    taken.unlock();
  });

  test('of an earlier version finds its database in its place, also when the move was cut short', () => {
    const folder = newFolder();
    const root = join(folder, 'data');
    mkdirSync(join(root, 'global'), { recursive: true });
    mkdirSync(join(root, 'database.moving', 'base'), { recursive: true });
    writeFileSync(join(root, 'PG_VERSION'), '18');
    writeFileSync(join(folder, 'data.lock'), String(process.ppid));
    expect(() => takeFolder(root)).toThrow(`process ${process.ppid}, an earlier version`);
    writeFileSync(join(folder, 'data.lock'), '');
    const { database, unlock } = takeFolder(root);
    expect(readdirSync(database).sort()).toEqual(['PG_VERSION', 'base', 'global']);
    unlock();
    expect(readdirSync(root).sort()).toEqual(['database', 'passing']);
  });

  test('a database that was being put in its place is there after a cut, or the one before it is', () => {
    const folder = newFolder();
    const isAt = (path: string, what: string) => {
      mkdirSync(path);
      writeFileSync(join(path, 'PG_VERSION'), what);
    };
    const is = (what: string) => (path: string) => isAt(join(folder, path), what);
    const opened = () => {
      const { database, unlock } = takeFolder(folder);
      unlock();
      return readFileSync(join(database, 'PG_VERSION'), 'utf8');
    };
    // Cut before the old one had left its place: nobody was told that it had.
    is('old')('database');
    is('new')('database.ready');
    expect(opened()).toBe('old');
    // Cut after that.
    is('new')('database.ready');
    renameSync(join(folder, 'database'), join(folder, 'database before'));
    expect(opened()).toBe('new');
    // And whole: the one before is kept.
    const taken = takeFolder(folder);
    isAt(taken.unfinished, 'restored');
    installDatabase(taken, 'database before that');
    taken.unlock();
    expect(opened()).toBe('restored');
    expect(readFileSync(join(folder, 'database before that', 'PG_VERSION'), 'utf8')).toBe('new');
  });

  test('what is left of one that was being made is cleared away, and is in nobody’s way', () => {
    const folder = newFolder();
    const first = takeFolder(folder);
    first.unlock();
    mkdirSync(join(first.unfinished, 'base'), { recursive: true });
    const second = takeFolder(folder);
    expect(existsSync(first.unfinished)).toBe(false);
    // Whoever was making it for a process that was killed may write on: not where the next one writes.
    expect(second.unfinished).not.toBe(first.unfinished);
    second.unlock();
  });
});
