import { readFileSync } from 'node:fs';
import type { StoredShop } from '@wick/contract/api';
import { centreOf, dragBy, expect, leaveField, openDemo, saved, test } from './support/fixtures.ts';

test('moving a feed turns "will not fill" into a margin, and it is still there after a reload', async ({
  page,
  home,
}) => {
  await openDemo(page, home, 'Dome gore 7');
  await expect(page.getByTestId('verdict')).toContainText('Will not fill');
  await expect(page.getByTestId('fill-time')).toHaveText('never');

  // 1.05 m further along; the scale comes from two feeds whose positions are known.
  const feed1 = await centreOf(page, '[data-line="feed-1"] .swell');
  const feed3 = await centreOf(page, '[data-line="feed-3"] .swell');
  const pixelsPerMetre = (feed3.x - feed1.x) / (1 - 0.12);
  await dragBy(page, feed3, { x: 1.05 * pixelsPerMetre, y: 0 });

  await expect(page.getByTestId('verdict')).toContainText(/Tight|Comfortable/);
  await expect(page.getByText(/\d+ min in hand/)).toBeVisible();
  await saved(page);
  const along = await page.getByLabel('Feed 3, from along').inputValue();
  expect(Number.parseFloat(along)).toBeGreaterThan(1900);

  await page.reload();
  await expect(page.getByTestId('verdict')).toContainText(/Tight|Comfortable/);
  await expect(page.getByLabel('Feed 3, from along')).toHaveValue(along);

  // The fine forecast is what the list shows.
  await expect(page.getByText(/refining|quick forecast/)).toHaveCount(0, { timeout: 60_000 });
  await page.waitForTimeout(500);
  await page.goto(home);
  await expect(page.getByRole('row', { name: /Dome gore 7/ })).toContainText('last corner');
});

test('one gesture is one undo step, and redo brings it back', async ({ page, home }) => {
  await openDemo(page, home, 'Hydro spinner');
  await page.getByRole('tab', { name: 'Hoses' }).click();
  const field = page.getByLabel('Vacuum at the vents');
  await field.fill('26 inHg');
  await field.press('Enter');
  // 938.7 mbar outside (ISO 2533 at 640 m) less 26 x 33.864 mbar.
  await expect(field).toHaveValue('58.2 mbar');
  await leaveField(page);
  await page.keyboard.press('Control+z');
  await expect(field).toHaveValue('');
  await page.keyboard.press('Control+Shift+z');
  await expect(field).toHaveValue('58.2 mbar');
  await field.fill('31 inHg vac');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('more than the air weighs here (27.7 inHg)');
  await field.press('Escape');
  await expect(field).toHaveValue('58.2 mbar');
});

test('what a gauge may mean is asked back, a sea-level pressure is caught, and a pump holds no better than it reaches', async ({
  page,
  home,
}) => {
  await openDemo(page, home, 'Hydro spinner');
  await page.getByRole('tab', { name: 'Hoses' }).click();
  const field = page.getByLabel('Vacuum at the vents');
  await field.fill('-28 inHg');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('28 inHg below the air outside?');
  await field.fill('1 psi');
  await field.press('Enter');
  await expect(page.getByRole('button', { name: '1 psi vac' })).toBeVisible();
  await page.getByRole('button', { name: '1 psi abs' }).click();
  // NIST SP 811: 6894.757 Pa.
  await expect(field).toHaveValue('68.9 mbar');
  await field.fill('');
  await field.press('Enter');
  await page
    .getByRole('combobox', { name: 'Pump', exact: true })
    .selectOption({ label: 'Pump, dry vane, to 120 mbar' });
  await expect(field).toHaveAttribute('placeholder', '120 mbar');
  await page.goto(`${home}/shop`);
  const ambient = page.getByLabel('Ambient pressure, if measured');
  await ambient.fill('1013 mbar');
  await ambient.press('Enter');
  await expect(page.getByTestId('slip')).toContainText('sea level: at 640 m that is 938.5 mbar');
  await ambient.fill('');
  await ambient.press('Enter');
  await expect(page.getByTestId('slip')).toHaveCount(0);
  // Journeys after this one find the workshop as it was.
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`${home}/api/shop`)).json()) as StoredShop).shop.ambientPressure,
    )
    .toBeNull();
});

test('the front is read by hover and by dragging the fuse, and the minute stands in the address', async ({
  page,
  home,
}) => {
  await openDemo(page, home, 'Hydro spinner');
  const feed = await centreOf(page, '[data-line="feed-1"] .swell');
  await page.mouse.move(feed.x, feed.y - 60);
  await expect(page.getByText(/wet at \d+:\d\d/)).toBeVisible();
  const fuse = (await page.getByRole('slider').boundingBox())!;
  await dragBy(page, { x: fuse.x + 60, y: fuse.y + 48 }, { x: 40, y: 0 });
  await expect(page).toHaveURL(/\?t=\d/);
  await expect(page.getByText('Show the whole forecast')).toBeVisible();
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/\/resin\?t=\d/);
  await page.goBack();
  await expect(page).toHaveURL(/\/lines/);
});

test('layers, a soft laminate, a shutting action and the results as files', async ({ page, home }) => {
  await openDemo(page, home, 'Footbridge kerb plate');
  await expect(page.getByTestId('verdict')).toContainText('Comfortable');
  await expect(page.getByText(/as 6 layers: the mould side lags/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('tab', { name: 'Sequence' }).click();
  await expect(page.getByLabel('What Feed waits for')).toBeVisible();

  // Shut early, part of it stays dry; undone, it fills again.
  await page.getByLabel('What Feed waits for').first().selectOption('resin drawn');
  await page.getByRole('textbox', { name: 'Resin drawn' }).fill('1.5 kg');
  await page.getByRole('textbox', { name: 'Resin drawn' }).press('Enter');
  await expect(page.getByTestId('verdict')).toContainText('Stays dry in places', { timeout: 60_000 });
  await leaveField(page);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('verdict')).toContainText('Comfortable', { timeout: 60_000 });
  await expect(page.getByText(/as 6 layers/)).toBeVisible({ timeout: 60_000 });

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV' }).click(),
  ]);
  const text = readFileSync((await download.path())!, 'utf8');
  expect(text.split('\n')[0]).toContain('arrival_s');
  expect(text.split('\n')[0]).toContain('final_fibre_volume_fraction');
  await page.getByLabel('What the board shows').first().selectOption('Pressure');
  await expect(page.getByText(/mbar/).first()).toBeVisible();
});

test('the doubt is sampled with progress, and can be stopped', async ({ page, home }) => {
  await openDemo(page, home, 'Hydro spinner');
  await page.getByRole('tab', { name: 'Doubt' }).click();
  await page.getByRole('button', { name: /Run it/ }).click();
  await expect(page.getByTestId('ensemble')).toContainText(/fill \(\d+ runs/, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: /Run it/ })).toBeVisible();
  await expect(page.getByTestId('ensemble')).toContainText('runs');
});

test('a point on the data sheet moves the gel time, and a broken CSV is refused in a sentence', async ({
  page,
  home,
}) => {
  await openDemo(page, home, 'Dome gore 7');
  await page.keyboard.press('5');
  const first = page.getByLabel('Gel time 1', { exact: true });
  await first.fill('150 min');
  await first.press('Enter');
  await expect(page.getByText(/slope \d+ kJ\/mol/).first()).toBeVisible();
  await page.getByLabel('Viscosity against time from a CSV').setInputFiles({
    name: 'curve.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('time (min),viscosity (mPa s)\n0,390\n30,thick'),
  });
  await expect(page.getByRole('alert')).toContainText('Line 3 reads');
  await page.getByLabel('Viscosity against time from a CSV').setInputFiles({
    name: 'curve.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('time (min),viscosity (mPa s)\n0,390\n60,900\n120,6000'),
  });
  await expect(page.getByText('3 points at 19 °C')).toBeVisible();

  // A second batch is a run on the clock, which the verdict says.
  await page.getByRole('tab', { name: /^Batches/ }).click();
  await page.getByRole('button', { name: 'A further batch' }).click();
  await expect(page.getByLabel('Batch 2 mixed at')).toHaveValue('3 min');
  await page.keyboard.press('4');
  await expect(page.getByText(/times or temperatures set on the clock/)).toBeVisible();
  await expect(page.getByTestId('verdict')).toBeVisible({ timeout: 60_000 });
});
