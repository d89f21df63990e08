import { hostileFiles } from '@wick/plan/files/test/hostile-files';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { expect, startJob, test } from './support/fixtures.ts';

/** Longest time the page was not free since this was last asked, ms. */
const longestTask = (page: Page) =>
  page.evaluate(() => {
    const own = window as unknown as { tasks: number[] };
    return Math.max(0, ...own.tasks.splice(0));
  });

test('hostile drawings and tables are each answered, with the page free and nothing changed', async ({
  page,
  home,
}) => {
  test.setTimeout(300_000);
  await page.addInitScript(() => {
    const own = window as unknown as { tasks: number[] };
    own.tasks = [];
    new PerformanceObserver((list) =>
      own.tasks.push(...list.getEntries().map(({ duration }) => duration)),
    ).observe({
      type: 'longtask',
    });
  });
  const kept = async (path: string) =>
    (await page.request.get(`${home}/api/${path}`)).json() as Promise<unknown[]>;
  await startJob(page, home);
  await expect(page.getByTestId('area')).toBeVisible();
  const before = [await kept('jobs'), await kept('materials')];
  const figures: { name: string; took: number; frozen: number }[] = [];
  const files = hostileFiles();
  const folder = mkdtempSync(join(tmpdir(), 'wick-hostile-'));
  const isTable = (name: string) => /\.(csv|xlsx)$/.test(name);
  for (const tables of [false, true]) {
    if (tables) await page.goto(`${home}/library`);
    const input = page.getByLabel(tables ? 'Library table to import' : 'Drawing to take the outline from');
    await expect(input).toBeAttached();
    for (const { name, content } of files.filter((file) => isTable(file.name) === tables)) {
      const path = join(folder, name);
      writeFileSync(path, content);
      await longestTask(page);
      const started = performance.now();
      await input.setInputFiles(path);
      // Refused with its name, or shown as what it is: no part.
      const refused = page.getByText(`“${name}” was not taken in.`);
      const shown = page.getByRole('dialog').filter({ hasText: name });
      await expect(refused.or(shown).first()).toBeVisible();
      const took = performance.now() - started;
      if (await shown.isVisible()) {
        await expect(page.getByRole('button', { name: 'Use this outline' })).toBeDisabled();
        await page.getByRole('button', { name: 'Leave the part as it is' }).click();
        await expect(shown).toHaveCount(0);
      }
      figures.push({ name, took, frozen: await longestTask(page) });
    }
  }
  expect([await kept('jobs'), await kept('materials')]).toEqual(before);
  const worst = (of: 'took' | 'frozen') => figures.reduce((a, b) => (b[of] > a[of] ? b : a));
  const [slowest, stiffest] = [worst('took'), worst('frozen')];
  process.stdout.write(
    `${figures.length} hostile files; slowest answer ${Math.round(slowest.took)} ms (${slowest.name}); longest frozen ${Math.round(stiffest.frozen)} ms (${stiffest.name})\n`,
  );
});
