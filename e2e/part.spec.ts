import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import {
  centreOf,
  drag,
  dragBy,
  expect,
  leaveField,
  openDemo,
  openStage,
  startJob,
  plateScale,
  saved,
  test,
} from './support/fixtures.ts';

async function choosePly(page: Page, name: string) {
  await page.getByLabel('Add a ply from the library').selectOption(name);
}

test('drawn by hand from nothing: outline with a bend, two zones, a hole, plies, lines, resin, verdict; all undone again', async ({
  page,
  home,
}) => {
  await startJob(page, home);
  await expect(page.getByTestId('area')).toHaveText('0.96 m²');
  const at = await plateScale(page);
  await page.getByLabel('Grid to snap to').selectOption('Grid 50 mm');

  // Five clicks and a click on the first corner make the outline.
  await page.keyboard.press('o');
  const corners = [
    [100, 100],
    [1100, 100],
    [1100, 500],
    [900, 700],
    [100, 700],
    [100, 100],
  ] as const;
  for (const [x, y] of corners) {
    const p = at(x, y);
    await page.mouse.move(p.x + 3, p.y - 2, { steps: 4 });
    await page.mouse.down();
    await page.mouse.up();
  }
  // 1.0 x 0.6 m less a corner of 0.2 x 0.2 / 2.
  await expect(page.getByTestId('area')).toHaveText('0.58 m²');
  // The slanting edge is bent by its middle, then straightened by number.
  const middle = await centreOf(page, '[data-middle="2"]');
  await dragBy(page, middle, { x: 25, y: -25 });
  await expect(page.getByLabel('Radius of edge 3')).not.toHaveValue('');
  await page.getByLabel('Radius of edge 3').fill('');
  await page.getByLabel('Radius of edge 3').press('Enter');
  await expect(page.getByTestId('area')).toHaveText('0.58 m²');
  await leaveField(page);
  const [low, high] = [await centreOf(page, '[data-corner="0"]'), await centreOf(page, '[data-corner="1"]')];
  const scale = (high.x - low.x) / 1000;
  const drawnAt = ([x, y]: readonly [number, number]) => ({
    x: low.x + (x - 100) * scale,
    y: low.y - (y - 100) * scale,
  });
  for (const { key, from, to } of [
    { key: 'h', from: [500, 300], to: [600, 400] },
    { key: 'z', from: [150, 150], to: [350, 650] },
    { key: 'z', from: [700, 200], to: [950, 400] },
  ] as const) {
    await page.keyboard.press(key);
    await drag(page, drawnAt(from), drawnAt(to));
  }
  await expect(page.getByTestId('area')).toHaveText('0.57 m²');
  await page.getByRole('tab', { name: 'Zones' }).click();
  await expect(page.getByRole('row', { name: /Zone 1/ })).toContainText('200 mm × 500 mm');
  await expect(page.getByRole('row', { name: /Zone 2/ })).toContainText('250 mm × 200 mm');
  await expect(page.getByRole('row', { name: /Hole 1/ })).toContainText('100 mm × 100 mm');

  await page.keyboard.press('2');
  await expect(page.getByRole('alert')).toContainText('No plies yet');
  for (const count of [1, 2, 3]) {
    await choosePly(page, 'Biax glass 600');
    await expect(page.getByTestId('ply')).toHaveCount(count);
  }
  await page.getByRole('tab', { name: 'Zone 2 3 plies' }).click();
  await choosePly(page, 'Woven glass 300');
  await expect(page.getByTestId('ply')).toHaveCount(4);
  await page.getByRole('tab', { name: 'Cut list' }).click();
  await expect(page.getByTestId('piece').last()).toContainText('Zone 2');

  await page.getByRole('button', { name: /^4 Lines/ }).click();
  const board = (await page.getByRole('application').boundingBox())!;
  for (const [key, share] of [
    ['f', 0.36],
    ['v', 0.62],
  ] as const) {
    await page.keyboard.press(key);
    await dragBy(
      page,
      { x: board.x + board.width * share, y: board.y + board.height * 0.42 },
      { x: 0, y: board.height * 0.3 },
    );
  }
  await page.getByRole('button', { name: /^5 Resin/ }).click();
  await page.getByLabel('Resin system').first().selectOption('Epoxy medium S2');
  await expect(page.getByTestId('resin-mass')).toContainText('kg');
  await page.getByRole('button', { name: /^4 Lines/ }).click();
  await expect(page.getByTestId('verdict')).toBeVisible({ timeout: 60_000 });
  await saved(page);

  // Every gesture is one step, and all of them lead back to the start.
  await page.keyboard.press('1');
  const undo = page.getByRole('button', { name: 'Undo' });
  let steps = 0;
  while (await undo.isEnabled()) {
    await undo.click();
    steps += 1;
  }
  expect(steps).toBe(13);
  await expect(page.getByTestId('area')).toHaveText('0.96 m²');
  await page.getByRole('tab', { name: 'Zones' }).click();
  await expect(page.getByText('No zones or holes.')).toBeVisible();
  const redo = page.getByRole('button', { name: 'Redo' });
  while (await redo.isEnabled()) await redo.click();
  await expect(page.getByTestId('area')).toHaveText('0.57 m²');
});

test('a new job starts with its shape; a rectangle stays one, its size is typed over all, and five plies come at once', async ({
  page,
  home,
}) => {
  await page.goto(home);
  await page.getByRole('button', { name: 'New job' }).click();
  const dialog = page.getByRole('dialog', { name: 'A new job' });
  await dialog.getByLabel('Name').fill('Ring lid');
  await dialog.getByLabel('Process').selectOption('closed mould');
  await dialog.getByLabel('Shape', { exact: true }).selectOption('Ring');
  await dialog.getByLabel('Diameter of the hole').fill('1 m');
  await dialog.getByLabel('Diameter of the hole').press('Tab');
  await expect(dialog.getByText('The hole has to be smaller than the ring.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Start the job' })).toBeDisabled();
  await dialog.getByLabel('Diameter', { exact: true }).fill('2 m');
  await dialog.getByLabel('Diameter', { exact: true }).press('Tab');
  await dialog.getByRole('button', { name: 'Start the job' }).click();
  // pi (1 - 0.25) m2, less what chords in place of arcs take.
  await expect(page.getByTestId('area')).toHaveText('2.36 m²');
  await expect(
    page.getByRole('heading', { name: 'Ring lid' }).or(page.getByText('Ring lid')).first(),
  ).toBeVisible();

  await startJob(page, home);
  const type = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).fill(text);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await type('Length of edge 2', '500 mm');
  await expect(page.getByTestId('area')).toHaveText('0.6 m²');
  await expect(page.getByLabel('Corner 4 across', { exact: true })).toHaveValue('500 mm');
  await type('Over all, along', '2 m');
  await expect(page.getByTestId('area')).toHaveText('1 m²');
  await expect(page.getByLabel('Length of edge 3', { exact: true })).toHaveValue('2000 mm');

  await page.getByRole('button', { name: /^\d Laminate/ }).click();
  await type('How many of the ply', '5');
  await page.getByLabel('Add a ply from the library').selectOption('Quad glass 850');
  await expect(page.getByTestId('ply')).toHaveCount(5);
  // One density for all who ask, where no resin is chosen: that of the list of what is assumed.
  await expect(page.getByText('Resin taken at 1100 kg/m³ until one is chosen.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('ply')).toHaveCount(0);
});

test('a drawing at the start of a job opens in it', async ({ page, home }) => {
  await page.goto(home);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('tab', { name: 'From a drawing' }).click();
  const square = '{"type":"Polygon","coordinates":[[[0,0],[1500,0],[1500,400],[0,400],[0,0]]]}';
  await page
    .getByLabel('Drawing of the part')
    .setInputFiles({ name: 'side panel.geojson', mimeType: 'application/json', buffer: Buffer.from(square) });
  await page.getByRole('button', { name: 'Start the job' }).click();
  await page.getByRole('button', { name: 'Use this outline' }).click();
  await expect(page.getByTestId('area')).toHaveText('0.6 m²');
  await expect(page.getByText('side panel', { exact: true }).first()).toBeVisible();
});

test('a zone by keyboard alone: corners typed, nudged, renamed, deleted', async ({ page, home }) => {
  await openStage(page, home, 'Footbridge kerb plate', 'Part');
  await expect(page.getByTestId('area')).toBeVisible();
  await leaveField(page);
  await page.keyboard.press('z');
  const type = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).fill(text);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  const set = () => page.getByRole('button', { name: 'Set corner' }).press('Enter');
  await type('First corner along', '0.3 m');
  await type('across', '4 in');
  await set();
  for (const [length, direction] of [
    ['20 cm', '0'],
    ['150 mm', '90'],
    ['200 mm', '180'],
  ] as const) {
    await type('Next edge, length', length);
    await type('direction', direction);
    await set();
  }
  await page.getByRole('button', { name: 'Done', exact: true }).press('Enter');
  await page.getByRole('tab', { name: 'Zones' }).press('Enter');
  await expect(page.getByRole('row', { name: /Zone 1/ })).toContainText('200 mm × 150 mm');
  await page.getByRole('tab', { name: 'Corners' }).press('Enter');
  await expect(page.getByLabel('Corner 1 across')).toHaveValue('101.6 mm');
  await page.locator('[aria-label="Zone 1, corner 2"]').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByLabel('Corner 2 along')).toHaveValue('511 mm');
  await page.keyboard.press('?');
  await expect(page.getByText('close what is drawn; take its last corner back')).toBeVisible();
  await page.keyboard.press('Escape');
  await leaveField(page);
  await page.keyboard.press('Delete');
  await page.getByRole('tab', { name: 'Zones' }).press('Enter');
  await expect(page.getByText('No zones or holes.')).toBeVisible();
  await leaveField(page);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

const dxf = (lines: number[][]) =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${lines
    .map(([x1, y1, x2, y2]) => `0\nLINE\n8\nCut\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`)
    .join('')}0\nENDSEC\n0\nEOF\n`;
const fileOf = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });

test('a drawing with a gap: told where and how wide, closed, used; a broken one changes nothing', async ({
  page,
  home,
}) => {
  await startJob(page, home);
  await expect(page.getByTestId('area')).toHaveText('0.96 m²');
  const input = page.getByLabel('Drawing to take the outline from');
  await input.setInputFiles(fileOf('panel.dxf', 'dear reader'));
  await expect(page.getByRole('alert')).toContainText(
    '“panel.dxf” was not taken in. The file does not read as DXF',
  );
  await expect(page.getByTestId('area')).toHaveText('0.96 m²');

  const open = [
    [0, 0, 1500, 0],
    [1500, 0, 1500, 700],
    [1500, 700, 4, 700],
    [0, 700, 0, 0],
  ];
  await input.setInputFiles(fileOf('panel.dxf', dxf(open)));
  await expect(page.getByTestId('gaps')).toContainText('4 mm apart near');
  const use = page.getByRole('button', { name: 'Use this outline' });
  await expect(use).toBeDisabled();
  await page.getByLabel('Close gaps with a straight edge').check();
  await expect(page.getByTestId('drawn-size')).toContainText('1500 mm × 700 mm');
  await use.click();
  await expect(page.getByTestId('area')).toHaveText('1.05 m²');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('area')).toHaveText('0.96 m²');

  // The same by dropping it on the page.
  const transfer = await page.evaluateHandle((text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], 'dropped.dxf'));
    return data;
  }, dxf(open));
  await page.locator('body').dispatchEvent('drop', { dataTransfer: transfer });
  await expect(page.getByText('Outline from “dropped.dxf”')).toBeVisible();
});

test('the plan is saved as DXF and SVG and comes back the same size', async ({ page, home }) => {
  await openStage(page, home, 'Kiosk fascia', 'Part');
  for (const [item, ending] of [
    ['DXF, millimetres', 'dxf'],
    ['SVG, full size', 'svg'],
  ] as const) {
    await page.getByRole('button', { name: 'Save the plan as' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: item }).click(),
    ]);
    const text = readFileSync((await download.path())!, 'utf8');
    await page.getByLabel('Drawing to take the outline from').setInputFiles(fileOf(`again.${ending}`, text));
    await expect(page.getByTestId('drawn-size')).toHaveText('900 mm × 500 mm, 1 holes, 1 zones');
    await page.getByRole('button', { name: 'Leave the part as it is' }).click();
  }
});

test('a ply is dragged to another place, and moved by keys; each is one step', async ({ page, home }) => {
  await openStage(page, home, 'Hydro spinner', 'Laminate');
  const cloths = () =>
    page
      .getByTestId('ply')
      .locator('.cloth select')
      .evaluateAll((list) => list.map((one) => (one as HTMLSelectElement).selectedOptions[0]!.text));
  await expect.poll(cloths).toContain('Biax glass 600');
  const before = await cloths();
  // Top ply first: woven 45, biax 0, biax 45, biax 0, woven 0.
  const grip = await centreOf(page, '[data-ply="4"]');
  const below = await centreOf(page, '[data-ply="2"]');
  await drag(page, grip, { x: grip.x, y: below.y });
  await expect.poll(cloths).toEqual([before[1], before[2], before[0], before[3], before[4]]);
  await page.locator('[data-ply="2"]').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(cloths).toEqual([before[1], before[0], before[2], before[3], before[4]]);
  const undo = page.getByRole('button', { name: 'Undo' });
  await undo.click();
  await undo.click();
  await expect.poll(cloths).toEqual(before);
  await expect(undo).toBeDisabled();
});

test('the printed plan is to scale', async ({ page, home }) => {
  await openStage(page, home, 'Rescue sled tray', 'Part');
  await page.getByRole('link', { name: 'Print plan and ply book' }).click();
  await page.emulateMedia({ media: 'print' });
  const part = page.getByTestId('printed-part');
  await expect(part).toBeVisible();
  const box = await part.evaluate((path) => {
    const { width, height } = path.getBoundingClientRect();
    return { width, height };
  });
  // CSS: 96 pixels are an inch. 1600 x 600 mm at 1:10.
  expect((box.width / 96) * 25.4).toBeCloseTo(160, 1);
  expect((box.height / 96) * 25.4).toBeCloseTo(60, 1);
  await expect(page.getByText('this bar is 100 mm on paper')).toBeVisible();
  await expect(page.getByText('Lashing point: 190 mm × 140 mm')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Cut list, labels in lay order' })).toBeVisible();
  const pdf = await page.pdf({ preferCSSPageSize: true });
  // A4 lying is 841.9 x 595.3 points; Chromium writes it into the page's media box.
  expect(/MediaBox \[0 0 84[12]\.?\d* 59[456]/.test(pdf.toString('latin1'))).toBe(true);
});

test('two fingers zoom the plan and give up what one began', async ({ page, home }) => {
  await openDemo(page, home, 'Hydro spinner');
  await page.keyboard.press('1');
  const board = (await page.getByRole('application').boundingBox())!;
  const [x, y] = [board.x + board.width / 2, board.y + board.height / 2];
  const corner = await centreOf(page, '[data-corner="0"]');
  const cdp = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: number[][]) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([px, py], id) => ({ x: px!, y: py!, id })),
    });
  await touch('touchStart', [[x - 40, y]]);
  await touch('touchStart', [
    [x - 40, y],
    [x + 40, y],
  ]);
  for (const apart of [50, 60, 80])
    await touch('touchMove', [
      [x - apart, y],
      [x + apart, y],
    ]);
  await touch('touchEnd', []);
  await expect(page.getByRole('button', { name: 'Whole part' })).toBeVisible();
  const after = await centreOf(page, '[data-corner="0"]');
  // Twice as far from the middle of the two fingers.
  expect((after.x - x) / (corner.x - x)).toBeCloseTo(2, 1);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});
