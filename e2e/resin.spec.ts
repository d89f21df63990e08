import type { Page } from '@playwright/test';
import { dragBy, expect, openCopy, saved, test } from './support/fixtures.ts';

const pane = (page: Page, name: string | RegExp) => page.getByRole('tab', { name }).click();
/** The bag of this rehearsal was never tested: nothing is mixed for it until somebody says so. */
async function goOnPast(page: Page) {
  await expect(page.getByText('Rehearsal: nothing here is a real part.')).toBeVisible();
  const hold = page.getByTestId('hold');
  await expect(hold).toContainText('No drop test of this part has been judged.');
  await hold.getByRole('button', { name: 'Go on past it …' }).click();
  await hold.getByLabel('Name of who goes on past it').fill('Ada');
  await hold.getByLabel('Reason for going on past it').fill('Mixing is what is rehearsed');
  await hold.getByRole('button', { name: 'Ada goes on past it' }).click();
}
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** A copy of the kerb plate under Resin, its forecast done. */
async function openResin(page: Page, home: string) {
  await openCopy(page, home, 'Footbridge kerb plate');
  await page.getByText(/refining|quick forecast/).waitFor({ state: 'detached', timeout: 60_000 });
  await page.getByRole('button', { name: /^5 Resin/ }).click();
}

test('the kerb plate’s two batches: taken as suggested, the second dragged until the pot runs dry, and mended', async ({
  page,
  home,
}) => {
  await openResin(page, home);
  await pane(page, /^Batches/);
  await expect(page.getByTestId('batch-faults')).toContainText('more than the mixing bucket holds');
  await press(page, 'Take these');
  await expect(page.getByTestId('dry-words')).toHaveText('The pot never runs dry', { timeout: 60_000 });
  const second = page.getByTestId('batch-2');
  const mixedAt = async () => Number(await second.getAttribute('aria-valuenow'));
  const before = await mixedAt();

  const grip = async () => {
    const box = (await second.locator('.mix').boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  await dragBy(page, await grip(), { x: 240, y: 0 });
  await expect(page.getByTestId('dry-words')).toContainText(/The pot runs dry at \d+:\d\d, if it goes fast/);
  await expect(page.getByTestId('dry')).toBeVisible();
  await expect(page.getByTestId('batch-faults')).toContainText(
    /Batch 2 has to be in by then: mix it \d+ min earlier/,
  );
  await expect(page.getByRole('tab', { name: /^Batches/ })).toContainText('1');
  expect(await mixedAt()).toBeGreaterThan(before + 10);
  await saved(page);

  // Back by the hand, then by the table; one step of undo each.
  await dragBy(page, await grip(), { x: -120, y: 0 });
  await page.getByLabel('Batch 2 mixed at').fill(`${before} min`);
  await page.getByLabel('Batch 2 mixed at').press('Enter');
  await expect(page.getByTestId('dry-words')).toHaveText('The pot never runs dry', { timeout: 60_000 });
  await press(page, 'Undo');
  await expect.poll(mixedAt).toBeGreaterThan(before);
  await page.keyboard.press('Control+y');
  await expect.poll(mixedAt).toBe(before);
  await saved(page);
  await page.reload();
  await expect(page.getByTestId('batch-2')).toBeVisible({ timeout: 30_000 });

  // The ledger says who asks for it, and lights it up.
  await pane(page, 'How much');
  await page
    .getByTestId('ledger')
    .getByRole('button', { name: /Net mesh open/ })
    .click();
  await expect(page.getByTestId('ledger-plan').locator('path.lit')).toBeVisible();
  await page.getByLabel('Reserve').selectOption('per cent of all the rest');
  await expect(page.getByTestId('ledger')).toContainText('Reserve');
});

/** Holds a button of the rehearsing hand. */
async function pour(page: Page, name: string, duration: number) {
  const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.waitForTimeout(duration);
  await page.mouse.up();
}
const gramsIn = async (page: Page, testId: string) =>
  Number.parseFloat((await page.getByTestId(testId).textContent()) ?? 'x');

test('mixed by the simulated scale: poured over, told at once what to add, made good; the clock runs into the fuse', async ({
  page,
  home,
}) => {
  await openResin(page, home);
  await page.getByLabel('Resin system').selectOption('Epoxy extra slow S5');
  await pane(page, /^Batches/);
  await press(page, 'A further batch');
  await page.getByLabel('Mass of batch 1').fill('0.3 kg');
  await page.getByLabel('Mass of batch 1').press('Enter');
  await pane(page, 'Mix sheet');
  await expect(page.getByTestId('mix-sheet')).toContainText('100 : 33');
  await press(page, 'Mix by it');
  await page.getByLabel('Rehearse').selectOption({ label: 'with a simulated bag' });
  await expect(page.getByText('Rehearsal: nothing here is a real part.')).toBeVisible();
  await goOnPast(page);
  await press(page, 'Begin this batch');
  await press(page, 'Bucket on the scale');
  await expect(page.getByTestId('scale')).toHaveText('180 g', { timeout: 15_000 });
  await press(page, 'Set to zero');

  // 300 g at 100:33 are 226 and 74; sixty grams a second for four seconds are too much.
  await pour(page, 'Pour', 4300);
  await expect(page.getByTestId('over')).toContainText(
    /Too much resin\. Leave it in: take it as it is, then add \d+ g of hardener/,
  );
  await page.getByRole('button', { name: /^Take \d+ g of resin/ }).click();
  const wanted = await gramsIn(page, 'left');
  expect(wanted).toBeGreaterThan(77);
  await expect(page.getByTestId('mix-clock')).toBeHidden();

  // Far too much hardener: resin is asked for, and the new total said.
  await pour(page, 'Pour', 2300);
  const over = page.getByTestId('over');
  await expect(over).toContainText(
    /Too much hardener\. Leave it in: take it as it is, then add \d+ g of resin; \d+ g in all/,
  );
  await expect(page.getByTestId('mix-clock')).toBeVisible();
  await page.getByRole('button', { name: /^Take \d+ g of hardener/ }).click();
  await expect(page.getByText(/^Add resin, \d+ g in all/)).toBeVisible();
  const lacking = await gramsIn(page, 'left');
  await pour(page, 'Pour', (1000 * (lacking - 12)) / 60);
  for (let n = 0; n < 8 && (await gramsIn(page, 'left')) > 4; n++) {
    await pour(page, 'Drops', 1500);
    await page.waitForTimeout(1200);
  }
  await page.getByRole('button', { name: /^Take \d+ g of resin/ }).click();
  for (let n = 0; n < 4 && !(await page.getByTestId('mixed').isVisible()); n++) {
    await pour(page, 'Drops', 1500);
    await page.getByRole('button', { name: /^Take \d+ g of/ }).click();
    await page.waitForTimeout(500);
  }
  await expect(page.getByTestId('mixed')).toContainText(/\d+ g mixed, /);
  await expect(page.getByTestId('pours').getByRole('listitem').nth(2)).toBeVisible();

  await page.getByRole('link', { name: 'Back to the sheet' }).click();
  await expect(page.getByTestId('burnt')).toContainText(/now \d+:\d\d/);
});

test('a flat battery is told, and what is poured can be typed; a leaning bucket is told too', async ({
  page,
  home,
}) => {
  await openResin(page, home);
  await pane(page, 'Mix sheet');
  await press(page, 'Mix by it');
  await page.getByLabel('Rehearse').selectOption({ label: 'with a simulated bag' });
  await goOnPast(page);
  await press(page, 'Begin this batch');
  await press(page, 'Bucket on the scale');
  await expect(page.getByTestId('scale')).toHaveText('180 g', { timeout: 15_000 });
  await press(page, 'Set to zero');
  await pour(page, 'Pour', 2500);
  await expect(page.getByRole('button', { name: /^Take \d+ g of resin/ })).toBeVisible();
  await press(page, 'The bucket leans');
  await expect(page.getByTestId('scale-trouble')).toContainText('does the bucket lean');
  await press(page, 'All well again');
  await press(page, 'Its battery is flat');
  await expect(page.getByTestId('scale-trouble')).toContainText('The scale says nothing', {
    timeout: 20_000,
  });
  await page.getByLabel('resin poured, as the scale shows it').fill('3224 g');
  await page.getByLabel('resin poured, as the scale shows it').press('Enter');
  await expect(page.getByTestId('pours')).toContainText('3224 g resin, typed');
  await expect(page.getByText(/^Pour hardener, 1064 g in all/)).toBeVisible();
});

test('a wrong ratio is refused in words, and the sheet prints on one page with a code', async ({
  page,
  home,
}) => {
  await openResin(page, home);
  const ratio = page.getByLabel('Hardener to 100 of resin by weight');
  // The same by volume: 40 to 100.
  await ratio.fill('40');
  await ratio.press('Enter');
  await expect(page.getByTestId('ratio-fault')).toContainText(
    '40 to 100 is the ratio of Epoxy extra slow S5 by volume. On a scale it is 33 to 100',
  );
  await ratio.fill('45');
  await ratio.press('Enter');
  await expect(page.getByTestId('ratio-fault')).toContainText(
    'An amine is not made quicker or slower by its ratio',
  );
  await page.reload();
  await expect(ratio).toHaveValue('33');

  await pane(page, 'Mix sheet');
  await press(page, 'Print');
  await expect(page.getByTestId('mix-sheet')).toBeVisible({ timeout: 60_000 });
  const code = page.getByRole('img', { name: 'Code of this batch' });
  await expect(code).toBeVisible();
  expect(await code.evaluate((picture: HTMLImageElement) => picture.naturalWidth)).toBeGreaterThan(20);
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
  }
});
