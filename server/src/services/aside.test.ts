import { afterAll, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createAside, type TooMuchError } from './aside.ts';
import { ProblemError } from './problem.ts';

const file = join(mkdtempSync(join(tmpdir(), 'wick-aside-')), 'work.mjs');
writeFileSync(
  file,
  `export default async ({ wait, fail, hoard }) => {
    if (fail) throw new Error('it cannot be done');
    const kept = [];
    while (hoard) kept.push(new Array(1e6).fill(kept.length));
    await new Promise((resolve) => setTimeout(resolve, wait ?? 0));
    return 'done';
  };`,
);
interface Asked {
  readonly wait?: number;
  readonly fail?: boolean;
  readonly hoard?: boolean;
}
const made: { close: () => Promise<unknown> }[] = [];
const aside = (longest = 20_000) => {
  const one = createAside<Asked, string>(pathToFileURL(file), {
    ...{ memory: 64, longest, waiting: 2, things: 'tests' },
  });
  made.push(one);
  return one;
};
afterAll(() => Promise.all(made.map((one) => one.close())));

test('it answers, one after the other, and a fault of one is told to who asked alone', async () => {
  const { ask } = aside();
  const answers = await Promise.allSettled([ask({}), ask({ fail: true }), ask({})]);
  expect(answers.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
  await expect(ask({ fail: true })).rejects.toThrow('it cannot be done');
});

test('who asks while too many wait is sent away, and is served later', async () => {
  const { ask } = aside();
  await ask({});
  const busy = [ask({ wait: 800 }), ask({}), ask({})];
  const away = await ask({}).catch((error: unknown) => error as ProblemError);
  expect(away).toBeInstanceOf(ProblemError);
  expect((away as ProblemError).toProblem()).toMatchObject({ code: 'TOO_OFTEN', status: 429 });
  expect((away as ProblemError).message).toContain('Too many tests wait');
  await Promise.all(busy);
  expect(await ask({})).toBe('done');
});

test('what takes too long or too much memory is given up, and the next is answered', async () => {
  const slow = aside(1500);
  await slow.ask({});
  const fault = (asked: Promise<string>) => asked.catch((error: unknown) => (error as TooMuchError).of);
  expect(await fault(slow.ask({ wait: 60_000 }))).toBe('time');
  const { ask } = aside();
  expect(await fault(ask({ hoard: true }))).toBe('memory');
  expect(await ask({})).toBe('done');
}, 30_000);
