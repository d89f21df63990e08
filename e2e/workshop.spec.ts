import { readFileSync } from 'node:fs';
import { dragBy, expect, openStage, test } from './support/fixtures.ts';

test('a library value is changed with its source; the job keeps its own until the newer one is taken', async ({
  page,
  home,
}) => {
  await page.goto(`${home}/library`);
  await page.getByRole('button', { name: 'Quad glass 850', exact: true }).click();
  await page.getByLabel('Areal weight', { exact: true }).fill('25 oz/yd2');
  await page.getByLabel('Areal weight', { exact: true }).press('Enter');
  await page.getByLabel('Doubt of Areal weight').fill('3 %');
  await page.getByLabel('Doubt of Areal weight').press('Enter');
  await page.getByLabel('Source of Areal weight').fill('Weighed, three swatches');
  await page.getByLabel('Source of Areal weight').press('Tab');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  // 25 x 33.906 g/m2.
  const row = page.getByTestId('entry').filter({ hasText: 'Quad glass 850' });
  await expect(row).toContainText('848 g/m²');
  await expect(row).toContainText('± 3 %');
  await page.getByRole('button', { name: 'Quad glass 850', exact: true }).click();
  await expect(page.getByRole('table', { name: 'History of the entry' })).toContainText(
    'Areal weight was 850 g/m²',
  );
  await page.getByRole('button', { name: 'Leave as it was' }).click();

  await openStage(page, home, 'Footbridge kerb plate', 'Laminate');
  const mass = page.getByTestId('fibre-mass');
  await expect(mass).toHaveText('6.96 kg');
  await page.getByRole('button', { name: 'Use the library’s' }).click();
  await expect(mass).toHaveText('6.94 kg');
  await expect(page.getByTestId('newer-values')).toHaveCount(0);
});

test('what a job uses cannot be deleted, and says which; a duplicate can', async ({ page, home }) => {
  await page.goto(`${home}/library`);
  await page.getByRole('tab', { name: /Flow meshes/ }).click();
  await page.getByRole('button', { name: 'Delete Knit mesh fine' }).click();
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('library-problem')).toContainText(
    '“Knit mesh fine” stays: “Hydro spinner” uses it.',
  );
  await page
    .getByTestId('entry')
    .filter({ hasText: 'Net mesh open' })
    .getByRole('button', { name: 'Duplicate' })
    .click();
  await page.getByRole('button', { name: 'Add to the library' }).click();
  await expect(page.getByTestId('entry')).toHaveCount(3);
  await page.getByRole('button', { name: 'Delete Net mesh open, copy' }).click();
  await page.getByRole('tooltip').last().getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('entry')).toHaveCount(2);
});

test('the library goes out as a workbook and comes in the same; a broken table changes nothing', async ({
  page,
  home,
}) => {
  await page.goto(`${home}/library`);
  await expect(page.getByTestId('entry').first()).toBeVisible();
  await page.getByRole('button', { name: 'Save as' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /Workbook/ }).click(),
  ]);
  const input = page.getByLabel('Library table to import');
  const book = readFileSync((await download.path())!);
  await input.setInputFiles({ name: 'library.xlsx', mimeType: 'application/octet-stream', buffer: book });
  await expect(page.getByTestId('import-answer')).toHaveText(/^0 added, 0 changed, \d+ as they were/);
  const table = (thickness: string) =>
    Buffer.from(
      `kind,id,name,thickness [mm],porosity,permeability [m2]\nflowMesh,mesh-csv,Mesh from a table,${thickness},0.8,3e-9`,
    );
  await input.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: table('thin') });
  await expect(page.getByTestId('import-answer')).toContainText('row 2: column “thickness” reads “thin”');
  await input.setInputFiles({ name: 'good.csv', mimeType: 'text/csv', buffer: table('1.1') });
  await expect(page.getByTestId('import-answer')).toHaveText(/^1 added/);
  await page.getByLabel('Search name and source').fill('from a table');
  await page.getByRole('tab', { name: 'Flow meshes 1' }).click();
  await expect(page.getByTestId('entry')).toContainText('1.1 mm');
});

test('jobs: searched, archived and brought out, deleted and brought back', async ({ page, home }) => {
  await page.goto(home);
  const rows = page.getByRole('row');
  await page.getByLabel('Search name or process').fill('closed');
  await expect(rows.filter({ hasText: 'Kiosk fascia' })).toBeVisible();
  await expect(rows.filter({ hasText: 'Dome gore' })).toHaveCount(0);
  await page.getByLabel('Search name or process').fill('');
  await rows.filter({ hasText: 'Kiosk fascia' }).getByRole('button', { name: 'Duplicate' }).click();
  const copy = rows.filter({ hasText: 'Kiosk fascia, copy' });
  await copy.getByRole('button', { name: 'Archive' }).click();
  await expect(copy).toHaveCount(0);
  await page.getByLabel('Archived (1)').check();
  await copy.getByRole('button', { name: 'Take out of the archive' }).click();
  await page.getByLabel('Archived (0)').uncheck();
  await copy.getByRole('button', { name: 'Delete' }).click();
  await expect(copy).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(copy).toBeVisible();
  await copy.getByRole('button', { name: 'Delete' }).click();

  await rows.filter({ hasText: 'Rescue sled tray' }).getByRole('button', { name: 'Other hand' }).click();
  await page.getByRole('link', { name: 'Rescue sled tray, other hand' }).click();
  await page.getByRole('button', { name: /^2 Laminate/ }).click();
  await expect(page.getByLabel('Angle of ply 2', { exact: true })).toHaveValue('-45°');
  await page.getByRole('button', { name: /^1 Part/ }).click();
  await page.getByRole('tab', { name: 'Rises' }).click();
  const point = page.getByRole('button', { name: 'Side wall, point 2', exact: true });
  const before = (await point.boundingBox())!;
  await dragBy(page, { x: before.x + 5, y: before.y + 5 }, { x: -20, y: 12 });
  expect((await point.boundingBox())!.y).toBeGreaterThan(before.y + 5);
});

test('the mould’s history is kept from the job, and its cautions are told', async ({ page, home }) => {
  await openStage(page, home, 'Rescue sled tray', 'Part');
  await page.getByRole('tab', { name: 'Mould' }).click();
  await expect(page.getByText('Leak of 2026-05-29 not marked as mended')).toBeVisible();
  await page.getByLabel('What happened').selectOption('leak mended');
  await page.getByRole('textbox', { name: 'Details' }).fill('Glassed over');
  await page.getByRole('button', { name: 'Add to the history' }).click();
  await expect(page.getByText('not marked as mended')).toHaveCount(0);
  await page.getByRole('link', { name: 'All moulds' }).click();
  await page.getByRole('button', { name: 'Sled tray mould' }).click();
  await expect(page.getByRole('table', { name: 'History of the mould' })).toContainText('Glassed over');
});

test('a job file dropped anywhere becomes a job; a broken one is refused with a sentence', async ({
  page,
  home,
}) => {
  await page.goto(`${home}/moulds`);
  const drop = async (name: string, text: string) => {
    const transfer = await page.evaluateHandle(
      ([file, content]) => {
        const data = new DataTransfer();
        data.items.add(new File([content!], file!));
        return data;
      },
      [name, text],
    );
    await page.locator('body').dispatchEvent('drop', { dataTransfer: transfer });
  };
  await drop('broken.wick.json', '{"format":');
  await expect(page.getByText(/“broken.wick.json” was not taken in.*not complete JSON/)).toBeVisible();
  await drop('notes.txt', 'hello');
  await expect(page.getByText(/“notes.txt” was not taken in. Job files/)).toBeVisible();
  const list = (await (await page.request.get(`${home}/api/jobs`)).json()) as { id: string; name: string }[];
  const spinner = list.find(({ name }) => name === 'Hydro spinner')!;
  await drop(
    'spinner.wick.json',
    await (await page.request.get(`${home}/api/jobs/${spinner.id}/file`)).text(),
  );
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/part/);
  await expect(page.getByTestId('area')).toBeVisible();
});
