import { mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { fingerprint, isBuilt, setBuilt } from './built.mjs';
import { openFrontDesk } from './front-desk.mjs';
import { countPackages, missingPackages } from './installed.mjs';

/** A project with these files in it; what is no text is written as JSON. @returns its folder, with a slash at its end */
function project(files: Record<string, unknown>): string {
  const root = `${mkdtempSync(join(tmpdir(), 'wick-project-'))}/`;
  for (const [name, content] of Object.entries(files)) write(root, name, content);
  return root;
}
function write(root: string, name: string, content: unknown) {
  mkdirSync(dirname(root + name), { recursive: true });
  writeFileSync(root + name, typeof content === 'string' ? content : JSON.stringify(content));
}

describe('packages', () => {
  const lock = {
    packages: {
      '': {},
      'node_modules/vue': { version: '3.5.0', integrity: 'a' },
      'node_modules/jest': { version: '30.0.0', integrity: 'b', dev: true },
      'node_modules/native-for-others': { version: '1.0.0', integrity: 'c', optional: true },
      'node_modules/@wick/core': { link: true },
    },
  };
  const missing = (there: object | string, forAll: boolean) =>
    missingPackages(
      project({ 'package-lock.json': lock, 'node_modules/.package-lock.json': there }),
      forAll,
    ).map(([path]) => path);
  const link = { 'node_modules/@wick/core': { link: true } };

  test('what runs needs no test tools; what tests need is more; what is for other machines is neither', () => {
    const runs = { packages: { ...link, 'node_modules/vue': { version: '3.5.0', integrity: 'a' } } };
    expect(missing(runs, false)).toEqual([]);
    expect(missing(runs, true)).toEqual(['node_modules/jest']);
  });

  test('another version, another content under the same version, or a list cut short count as missing', () => {
    for (const own of [
      { version: '3.4.9', integrity: 'a' },
      { version: '3.5.0', integrity: 'x' },
    ])
      expect(missing({ packages: { ...link, 'node_modules/vue': own } }, false)).toEqual([
        'node_modules/vue',
      ]);
    expect(missing('{"packages": {"node_mod', false)).toContain('node_modules/vue');
  });

  test('are counted as they come to lie there', () => {
    const root = project({ 'package-lock.json': lock });
    expect(countPackages(root)).toEqual({ done: 0, all: 1 });
    write(root, 'node_modules/vue/package.json', {});
    expect(countPackages(root)).toEqual({ done: 1, all: 1 });
  });
});

describe('a build', () => {
  const sources = () =>
    project({
      'package-lock.json': '{}',
      'core/src/a.ts': 'one',
      'core/src/a.test.ts': 'test',
      'contract/src/b.ts': 'two',
      'plan/src/c.ts': 'three',
      'web/src/d.vue': 'four',
      'server/src/e.ts': 'five',
      'web/dist/index.html': 'built',
    });

  test('stands until the content of a source changes; dates, tests and other parts do not count', () => {
    const root = sources();
    expect(isBuilt(root, 'web')).toBe(false);
    setBuilt(root, 'web', fingerprint(root, 'web'));
    utimesSync(`${root}core/src/a.ts`, new Date(), new Date());
    write(root, 'core/src/a.test.ts', 'another test');
    write(root, 'server/src/e.ts', 'another server');
    expect(isBuilt(root, 'web')).toBe(true);
    for (const [name, content] of [
      ['core/src/a.ts', 'other'],
      ['web/src/new.ts', ''],
      ['package-lock.json', '{"newer": true}'],
    ] as const) {
      write(root, name, content);
      expect([name, isBuilt(root, 'web')]).toEqual([name, false]);
      setBuilt(root, 'web', fingerprint(root, 'web'));
    }
    rmSync(`${root}web/dist`, { recursive: true });
    expect(isBuilt(root, 'web')).toBe(false);
  });
});

describe('until the program answers', () => {
  test('its address says what is being done and how far it is, and is free again afterwards', async () => {
    const port = 4700 + Math.floor(200 * Math.random());
    const steps = { packages: 'Fetch the packages', pages: 'Build the pages' };
    const desk = await openFrontDesk({ port, host: '127.0.0.1', steps });
    const at = `http://127.0.0.1:${port}`;
    desk.begin('packages');
    desk.tell('packages', 3, 10);
    const rows = async () => (await (await fetch(`${at}/getting-ready`)).json()) as Record<string, unknown>[];
    expect(await rows()).toMatchObject([
      { words: 'Fetch the packages', is: 'running', done: 3, all: 10 },
      { words: 'Build the pages', is: 'waiting' },
    ]);
    desk.end('packages');
    expect((await rows())[0]).toMatchObject({ is: 'done' });
    const page = await fetch(`${at}/jobs/some/lines`, { headers: { accept: 'text/html' } });
    expect([page.status, (await page.text()).includes('Vivid Wick is getting ready')]).toEqual([200, true]);
    // A device or another tab that asks for data is told to come back.
    expect((await fetch(`${at}/api/health`)).status).toBe(503);
    expect((await fetch(`${at}/api/readings`, { method: 'POST', body: '{}' })).status).toBe(503);
    await expect(openFrontDesk({ port, host: '127.0.0.1', steps })).rejects.toThrow(/EADDRINUSE/);
    await desk.close();
    const again = await openFrontDesk({ port, host: '127.0.0.1', steps });
    await again.close();
  });
});
