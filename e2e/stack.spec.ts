import { readFileSync } from 'node:fs';
import readWorkbook from 'read-excel-file/universal';
import { centreOf, dragBy, expect, openStage, saved, test } from './support/fixtures.ts';

test('a stack that is wrong in three ways is mended: an end drawn on the section, the rest by a click, and all of it undone', async ({
  page,
  home,
}) => {
  await openStage(page, home, 'Rescue sled tray', 'Stack');
  const verdict = page.getByTestId('stack-verdict');
  await expect(verdict).toHaveText('3 things are wrong');
  await expect(page.getByTestId('stack-checks')).toContainText('across the tape at 30 mm');
  // The peel ply ends 50 mm past the edge: drawn 25 mm in, it ends before the tape.
  const end = page.getByRole('slider', { name: 'End of the peel ply' });
  await expect(end).toHaveAttribute('aria-valuetext', '50 mm past the edge');
  const tape = page.getByRole('slider', { name: 'End of the sealant tape, inner' });
  const from = (await end.boundingBox())!;
  const goal = (await tape.boundingBox())!;
  await dragBy(
    page,
    { x: from.x + from.width / 2, y: from.y + from.height / 2 },
    { x: goal.x - from.x - 25, y: 0 },
  );
  await expect(verdict).toHaveText('2 things are wrong');
  await expect(page.getByRole('slider', { name: 'End of the peel ply' })).toHaveAttribute(
    'aria-valuetext',
    /^(1\d|2\d) mm past the edge$/,
  );
  await page.getByRole('button', { name: 'Lap it by 10 mm' }).click();
  await page.getByRole('button', { name: 'Mask it first' }).click();
  await expect(verdict).toHaveText('Nothing missing, nothing short');
  await expect(page.getByTestId('layer').last()).toContainText('flash tape');
  await saved(page);
  for (let n = 0; n < 3; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(verdict).toHaveText('3 things are wrong');
});

test('the end of the mesh drawn back at the vent slows the forecast and saves resin; a starting stack lays another one', async ({
  page,
  home,
}) => {
  await openStage(page, home, 'Footbridge kerb plate', 'Stack');
  await page.getByRole('tab', { name: 'At the vent' }).click();
  const kept = page.getByText('Resin thrown away with').locator('..');
  await expect(kept).toContainText('0.71 kg');
  const last = page.getByText('last corner').locator('..');
  /** Of what stands on the fuse as "54:38" or "1:27:30". */
  const minutes = async () => {
    const clock = /(\d+:)?\d+:\d\d/.exec((await last.textContent()) ?? '')?.[0] ?? '';
    return clock.split(':').reduce((sum, part) => 60 * sum + Number(part), 0) / 60;
  };
  // About 55 minutes, quick or fine.
  await expect.poll(minutes).toBeLessThan(60);
  const mesh = page.getByRole('slider', { name: 'End of the flow mesh' });
  await mesh.focus();
  // With Shift a press is ten millimetres.
  for (let n = 0; n < 25; n++) await page.keyboard.press('Shift+ArrowLeft');
  await expect(mesh).toHaveAttribute('aria-valuetext', '300 mm short of the edge');
  await expect(kept).not.toContainText('0.71 kg');
  await expect.poll(minutes, { timeout: 30_000 }).toBeGreaterThan(70);
  await expect(
    page.getByTestId('layer').filter({ hasText: 'flow mesh' }).getByLabel('flow mesh, short of vents'),
  ).toHaveValue('300 mm');
  await page.getByLabel('Starting stack').selectOption({ label: 'Two meshes on each other' });
  await page.getByRole('button', { name: 'Lay this stack' }).click();
  await expect(page.getByTestId('layer').filter({ hasText: 'flow mesh' })).toHaveCount(2);
});

test('the bag is cut by hand, its pleat plan printed to scale, and the kit list read back from XLSX', async ({
  page,
  home,
}) => {
  await openStage(page, home, 'Rescue sled tray', 'Stack');
  await page.getByRole('tab', { name: 'Bag' }).click();
  await expect(page.getByTestId('bag-verdict')).toContainText('3 corners will bridge');
  await expect(page.getByTestId('bridges').getByRole('row')).toHaveCount(4);
  await page.getByRole('button', { name: 'Draw a section' }).click();
  const plan = await centreOf(page, '[data-testid="pleat-plan"]');
  await dragBy(page, { x: plan.x - 60, y: plan.y - 90 }, { x: 40, y: 180 });
  await expect(page.getByLabel('Section', { exact: true })).toContainText('Section 1: 2 rises');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Section', { exact: true })).not.toContainText('Section 1');

  await page.getByRole('tab', { name: 'Take-off' }).click();
  await expect(page.getByTestId('take-off')).toContainText('Sealant tape 12');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Kit list as XLSX' }).click(),
  ]);
  const [sheet] = await readWorkbook(new Blob([readFileSync((await download.path())!)]));
  const rows = sheet!.data as unknown as (string | number | null)[][];
  const tape = rows.find((row) => row[1] === 'Sealant tape 12')!;
  // Its middle runs 36 mm outside: two sides, the foot, the straight of the nose and two quarter rounds of 250 mm; four
  // pleats of 77 mm at twice their height, and two corners lapped by 50 mm.
  const round = 2 * (1.35 + 0.036) + (0.6 + 0.072) + 0.1 + Math.PI * (0.25 + 0.036);
  expect(tape[2]).toBeCloseTo(round + 4 * 2 * 0.077 + 2 * 0.05, 2);
  expect(tape[3]).toBe('m');

  await page.getByLabel('People').fill('3');
  await page.getByLabel('People').press('Enter');
  await page.getByRole('link', { name: 'Print kit list and pleat plan' }).click();
  await expect(page.getByTestId('printed-pleat')).toHaveCount(4);
  const paper = page.getByTestId('pleats');
  await expect(paper).toContainText('1:10');
  // 1.6 m and 36 mm outside at both ends, at 1:10; the drawing counts millimetres of paper.
  const width = await page
    .getByTestId('printed-tape')
    .evaluate((line) => (line as unknown as SVGGraphicsElement).getBBox().width);
  expect(width).toBeCloseTo(167.2, 1);
  await page.getByLabel('Sheet').selectOption({ label: 'A3' });
  await expect(paper).toContainText('1:5');
  // Three pairs of hands for four hours, as the screen was told.
  await expect(page.getByTestId('kit')).toContainText(/Nitrile gloves.*12 pieces/);
  await expect(page.getByTestId('printed-section')).toHaveCount(2);
  await expect(page.getByTestId('labels').getByRole('img')).toHaveCount(rows.length - 1);
});
