import axe from 'axe-core';
import type { Page } from '@playwright/test';
import { expect, openCopy, openDemo, test } from './support/fixtures.ts';

/** Rules of WCAG 2.1, levels A and AA, as axe-core checks them on the page as it stands. */
async function faultsOf(page: Page): Promise<string[]> {
  await page.evaluate(axe.source);
  return page.evaluate(async () => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'],
    });
    return violations.flatMap(({ id, help, nodes }) =>
      nodes.map(({ target, any }) => `${id}: ${help}: ${target.join(' ')} ${any[0]?.message ?? ''}`),
    );
  });
}

/** What turns from pale to dark is looked at when it has done so. */
const settled = (page: Page) =>
  page.evaluate(async () => {
    const ends = document
      .getAnimations()
      .filter((one) => Number(one.effect?.getComputedTiming().endTime) < 5000)
      .map((one) => one.finished.catch(() => undefined));
    await Promise.all(ends);
  });

const panes = ['Lines', 'Sequence', 'Hoses', 'Checks', 'Layouts', 'Advice', 'Probes', 'Doubt'];

/** Looks at a page once it has settled, and keeps what is at fault. */
function looking(page: Page) {
  const faults: string[] = [];
  const look = async (name: string) => {
    await page.waitForTimeout(400);
    await settled(page);
    for (const fault of await faultsOf(page)) faults.push(`${name}: ${fault}`);
  };
  return { faults, look };
}

test('every list, and a new job, can be read by eye, keys and screen reader', async ({ page, home }) => {
  const { faults, look } = looking(page);
  for (const [path, sign] of [
    ['/', 'Dome gore 7'],
    ['/shop', 'Oxbow'],
    ['/library', 'Biax glass 600'],
    ['/moulds', 'Moulds'],
    ['/book', 'Does the workshop hold its course?'],
  ] as const) {
    await page.goto(home + path);
    await expect(page.getByText(sign).first()).toBeVisible();
    await look(path);
  }
  await page.goto(home);
  await page.getByRole('button', { name: 'New job' }).click();
  for (const source of ['By its size', 'From a drawing']) {
    await page.getByRole('tab', { name: source }).click();
    await look(`new job, ${source}`);
  }
  expect(faults).toEqual([]);
});

test('so can every pane of the lines', async ({ page, home }) => {
  const { faults, look } = looking(page);
  await openCopy(page, home, 'Dome gore 7');
  for (const pane of panes) {
    await page.getByRole('tab', { name: new RegExp(`^${pane}`) }).click();
    await look(`lines, ${pane}`);
  }
  expect(faults).toEqual([]);
});

test('so can every other stage and printed page', async ({ page, home }) => {
  test.setTimeout(240_000);
  const { faults, look } = looking(page);
  await openCopy(page, home, 'Dome gore 7');
  const job = page.url().replace(/\/lines.*/, '');
  for (const stage of [
    'part',
    'laminate',
    'stack',
    'stack?pane=bag',
    'stack?pane=take-off',
    'resin',
    'resin?pane=quantity',
    'resin?pane=batches',
    'resin?pane=sheet',
    'sheet',
    'mix',
    'vacuum',
    'print',
    'kit',
    'script',
  ]) {
    await page.goto(`${job}/${stage}`);
    await expect(page.getByText('Try-out').first()).toBeVisible();
    await look(stage);
  }
  expect(faults).toEqual([]);
});

test('so can every pane of the review', async ({ page, home }) => {
  const { faults, look } = looking(page);
  await openDemo(page, home, 'Footbridge kerb plate');
  await page.getByRole('button', { name: /^8 Review/ }).click();
  await expect(page.getByTestId('causes')).toContainText('The bag leaked', { timeout: 60_000 });
  for (const pane of ['Found', 'Measured', 'Learned', 'Next time', 'Record', 'How causes are told']) {
    await page.getByRole('tab', { name: pane, exact: true }).click();
    await look(`review, ${pane}`);
  }
  expect(faults).toEqual([]);
});

test('panes are one stop for the Tab key, and arrows go from one to the next', async ({ page, home }) => {
  await openCopy(page, home, 'Dome gore 7');
  await page.getByRole('tab', { name: 'Lines' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Sequence' })).toBeFocused();
  await expect(page.getByRole('tab', { name: 'Sequence' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('End');
  await expect(page.getByRole('tab', { name: 'Doubt' })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Lines' })).toBeFocused();
});
