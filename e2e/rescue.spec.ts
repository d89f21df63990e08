import { cpSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { demoMaterials } from '@wick/plan/demo/materials';
import { unzipSync } from 'fflate';
import { launchKnowing } from './support/browser.ts';
import { expect, saved, test } from './support/fixtures.ts';
import { newFolder, startServer } from './support/server.ts';

const nightly = (day: number) => `nightly 2026-01-0${day}T03.00.00.wick-backup.zip`;

test('a damaged database is said, its jobs are saved as files, and the last backup takes its place', async ({
  page,
}) => {
  const folder = newFolder();
  const before = await startServer(folder, 4367);
  await page.goto(`${before.url}/shop`);
  const [backup] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a backup' }).click(),
  ]);
  mkdirSync(join(folder, 'backups'), { recursive: true });
  cpSync(await backup.path(), join(folder, 'backups', nightly(1)));
  writeFileSync(join(folder, 'backups', nightly(2)), 'a night on which the disk was full');
  // Written after the backup: what is saved from the damaged database has it, the backup has not.
  await page.goto(before.url);
  await page.getByRole('link', { name: 'Kiosk fascia' }).click();
  await page.getByTitle('Rename').click();
  await page.getByLabel('Name of the job').fill('Kiosk fascia, second');
  await page.keyboard.press('Enter');
  await saved(page);
  // A browser that holds on would have it end without tidying up, and the next start would mend the page from its log.
  await page.goto('about:blank');
  await before.stop();

  flipBitIn(join(folder, 'database', 'base'), demoMaterials[0]!.name);
  const damaged = await startServer(folder, 4368);
  await page.goto(damaged.url);
  await expect(page.getByRole('heading', { name: 'The database is damaged' })).toBeVisible();
  await expect(page.getByText('It was left as it is')).toBeVisible();
  const [files] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /Save every job/ }).click(),
  ]);
  const salvaged = Object.keys(unzipSync(readFileSync(await files.path()))).join('\n');
  for (const name of ['Dome-gore-7', 'Kiosk-fascia-second']) expect(salvaged).toContain(name);
  await page.getByRole('button', { name: /Restore the last backup/ }).click();
  await expect(page.getByRole('heading', { name: 'The backup cannot be used as it is' })).toBeVisible();
  await expect(page.getByText('Nothing was changed')).toBeVisible();
  await page.getByRole('link', { name: 'Back to what can be done' }).click();
  await page.getByRole('button', { name: `Restore ${nightly(1)}` }).click();
  await expect(page.getByRole('heading', { name: 'The backup is in place' })).toBeVisible();
  await expect(async () => {
    await page.goto(damaged.url);
    await expect(page.getByRole('link', { name: 'Kiosk fascia', exact: true })).toBeVisible({
      timeout: 2000,
    });
  }).toPass({ timeout: 60_000 });
  expect(readdirSync(folder).some((name) => name.startsWith('database damaged'))).toBe(true);
  await damaged.kill();
});

/** As a bad sector does: a bit of the first page of a table in which a text stands. */
function flipBitIn(tables: string, text: string) {
  const files = readdirSync(tables, { recursive: true, withFileTypes: true }).filter((file) => file.isFile());
  const found = files
    .map(({ parentPath, name }) => join(parentPath, name))
    .map((path) => ({ path, bytes: readFileSync(path) }))
    .find(({ bytes }) => bytes.includes(text));
  const { path, bytes } = found!;
  bytes[bytes.indexOf(text)]! ^= 1;
  writeFileSync(path, bytes);
}

test('on the network the way is encrypted by a certificate made here, which a restart keeps', async () => {
  const folder = newFolder();
  const environment = {
    HOST: '0.0.0.0',
    WICK_NAMES: 'shop.test',
    WICK_PASS_PHRASE: 'gelcoat over seven rivers',
  };
  const browser = await launchKnowing('shop.test');
  const context = await browser.newContext({ ignoreHTTPSErrors: true });
  const page = await context.newPage();
  const madeAt = async () =>
    (await (await page.goto('https://shop.test:4369/'))!.securityDetails())!.validFrom;
  const server = await startServer(folder, 4369, environment);
  const made = await madeAt();
  await page.getByLabel('What this device is called').fill('Tablet');
  await page.getByLabel('Pass phrase or code').fill(environment.WICK_PASS_PHRASE);
  await page.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
  for (const { secure, httpOnly, sameSite } of await context.cookies())
    expect({ secure, httpOnly, sameSite }).toEqual({ secure: true, httpOnly: true, sameSite: 'Strict' });
  await expect(fetch('http://localhost:4369/api/jobs')).rejects.toThrow();
  await server.kill();

  const again = await startServer(folder, 4369, environment);
  expect(await madeAt()).toBe(made);
  await expect(page.getByRole('link', { name: 'Dome gore 7' })).toBeVisible();
  await browser.close();
  await again.kill();
});
