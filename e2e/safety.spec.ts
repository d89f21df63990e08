import { brokenJobFiles } from '@wick/plan/files/test/broken-job-files';
import type { StoredJob, WrittenJob } from '@wick/contract/api';
import { expect, openDemo, openStage, saved, test } from './support/fixtures.ts';
import { newFolder, startServer } from './support/server.ts';

test('a stale write offers both versions, and either can be kept', async ({ page, context, home }) => {
  for (const keep of ['Keep this one', 'Take the other version'] as const) {
    await openDemo(page, home, 'Hydro spinner');
    const other = await context.newPage();
    await other.goto(page.url());
    await expect(other.getByTestId('verdict')).toBeVisible();

    await other.getByRole('button', { name: 'Delete Rim vent' }).click();
    await saved(other);
    await page.getByRole('tab', { name: 'Hoses' }).click();
    const field = page.getByLabel('Vacuum at the vents');
    await field.fill(keep === 'Keep this one' ? '33 mbar' : '44 mbar');
    await field.press('Enter');
    await expect(page.getByText('This job was changed elsewhere')).toBeVisible();
    const differences = page.getByTestId('differences');
    await expect(differences).toContainText('Rim vent only here');
    await expect(differences).toContainText('pressure at the vent');
    await page.getByRole('button', { name: keep }).click();

    if (keep === 'Keep this one') {
      await saved(page);
      await other.reload();
      await other.getByRole('tab', { name: 'Hoses' }).click();
      await expect(other.getByLabel('Vacuum at the vents')).toHaveValue('33 mbar');
      await other.getByRole('tab', { name: 'Lines' }).click();
      await expect(other.getByRole('button', { name: 'Delete Rim vent' })).toBeVisible();
    } else {
      await page.getByRole('tab', { name: 'Lines' }).click();
      await expect(page.getByRole('button', { name: 'Delete Rim vent' })).toHaveCount(0);
      await page.getByRole('button', { name: 'Undo' }).click();
      await page.getByRole('tab', { name: 'Hoses' }).click();
      await expect(page.getByLabel('Vacuum at the vents')).toHaveValue('44 mbar');
      await saved(page);
    }
    await other.close();
  }
});

test('broken job files each say what is wrong and change nothing', async ({ page, home }) => {
  await page.goto(home);
  const rows = page.getByRole('row');
  await expect(page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
  const before = await rows.count();
  for (const { name, text, says } of brokenJobFiles()) {
    await page
      .getByTestId('import')
      .setInputFiles({ name: `${name}.json`, mimeType: 'application/json', buffer: Buffer.from(text) });
    await expect(page.getByTestId('message')).toContainText(`“${name}.json” was not imported.`);
    await expect(page.getByTestId('message')).toContainText(says);
  }
  await page
    .getByTestId('import')
    .setInputFiles({ name: 'huge.json', mimeType: 'application/json', buffer: Buffer.alloc(5_000_000, 32) });
  await expect(page.getByTestId('message')).toContainText('larger than 4 MB');
  await page.reload();
  await expect(rows).toHaveCount(before);
});

test('a server killed during edits loses no acknowledged write, and the folder opens again', async () => {
  const folder = newFolder();
  let server = await startServer(folder, 4350);
  const [first] = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string }[];
  const url = () => `${server.url}/api/jobs/${first!.id}`;
  for (let round = 0; round < 2; round++) {
    let job = (await (await fetch(url())).json()) as StoredJob;
    let acknowledged = job;
    const killAt = 25 + 10 * round;
    for (let i = 0; i < 200; i++) {
      const document = { ...job.document, name: `Round ${round}, write ${i}` };
      const sent = fetch(url(), {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ revision: job.revision, document }),
      });
      if (i === killAt) void server.kill();
      const answer = await sent.catch(() => null);
      if (!answer?.ok) break;
      acknowledged = job = { ...job, ...((await answer.json()) as WrittenJob), document };
    }
    await server.kill();
    server = await startServer(folder, 4350);
    const found = (await (await fetch(url())).json()) as StoredJob;
    // A write that was under way may have landed; one that was answered must have.
    expect(found.revision - acknowledged.revision).toBeGreaterThanOrEqual(0);
    expect(found.revision - acknowledged.revision).toBeLessThanOrEqual(1);
    if (found.revision === acknowledged.revision) expect(found.document).toEqual(acknowledged.document);
    expect(acknowledged.revision).toBeGreaterThan(killAt - 5);
  }
  await server.kill();
});

test('with the server gone, work goes on in the browser and is saved when it is back', async ({ page }) => {
  const folder = newFolder();
  let server = await startServer(folder, 4351);
  // Once the job stands the rest of the program comes by itself.
  const rest = page.waitForResponse(/HoseTable.*js$/, { timeout: 60_000 });
  await openDemo(page, server.url, 'Hydro spinner');
  await rest;
  await server.kill();
  await page.getByRole('tab', { name: 'Hoses' }).click();
  const field = page.getByLabel('Vacuum at the vents');
  await field.fill('47 mbar');
  await field.press('Enter');
  await expect(page.getByTestId('save-state')).toContainText('not saved yet: the server does not answer');
  server = await startServer(folder, 4351);
  await saved(page);
  await page.reload();
  await expect(page.getByLabel('Vacuum at the vents')).toHaveValue('47 mbar');
  await server.kill();
});

test('a folder that is in use is refused in one sentence and stays as it is', async () => {
  const folder = newFolder();
  const server = await startServer(folder, 4352);
  await expect(startServer(folder, 4353)).rejects.toThrow('ended with code 1');
  expect((await fetch(`${server.url}/api/health`)).ok).toBe(true);
  await server.kill();
});

test('a hose longer than a job can hold is refused while it is typed, and the old one stays', async ({
  page,
  home,
}) => {
  await openStage(page, home, 'Dome gore 7', 'Resin');
  const hose = page.getByLabel('Feed hose', { exact: true });
  await hose.fill('150 m');
  const alert = page.getByRole('alert').filter({ hasText: 'At least 0' });
  await expect(alert).toHaveText('At least 0 mm and less than 100 m.');
  await hose.press('Escape');
  await expect(alert).toHaveCount(0);
  await hose.fill('15 m');
  await hose.press('Enter');
  await page.reload();
  await expect(hose).toHaveValue('15000 mm');
});
