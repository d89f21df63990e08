import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { FolderError, lockFolder } from './folder-lock.ts';

const newFolder = () => join(mkdtempSync(join(tmpdir(), 'wick-lock-')), 'data');

describe('data folder lock', () => {
  test('another living process keeps the folder; the message names it and the way out', () => {
    const folder = newFolder();
    writeFileSync(`${folder}.lock`, String(process.ppid));
    expect(() => lockFolder(folder)).toThrow(FolderError);
    expect(() => lockFolder(folder)).toThrow(`already open in process ${process.ppid}`);
    expect(readFileSync(`${folder}.lock`, 'utf8')).toBe(String(process.ppid));
  });

  test('a lock left by a dead process is taken over, and given back', () => {
    const folder = newFolder();
    const dead = spawnSync(process.execPath, ['-e', '']).pid;
    writeFileSync(`${folder}.lock`, String(dead));
    const unlock = lockFolder(folder);
    expect(readFileSync(`${folder}.lock`, 'utf8')).toBe(String(process.pid));
    unlock();
    expect(existsSync(`${folder}.lock`)).toBe(false);
  });

  test('a place that cannot be a folder is refused with a hint', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'wick-lock-')), 'file');
    writeFileSync(file, '');
    expect(() => lockFolder(join(file, 'data'))).toThrow(/cannot be written .* WICK_DATA/);
  });
});
