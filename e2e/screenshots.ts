import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { launchOptions } from './support/browser.ts';
import { newFolder, startServer } from './support/server.ts';

/** Takes the pictures of docs/screenshots from demo data. */
const target = process.argv[2] ?? fileURLToPath(new URL('../docs/screenshots', import.meta.url));
const server = await startServer(newFolder(), 4391);
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (error) => console.error('page error:', error.message));
page.on('console', (message) => message.type() === 'error' && console.error('console:', message.text()));

const shot = (name: string) => page.screenshot({ path: `${target}/${name}.png` });
/** Waits for the fine forecast. */
const settled = (on: Page) =>
  on.getByText(/refining|quick forecast/).waitFor({ state: 'detached', timeout: 60_000 });

await page.goto(server.url);
await page.getByRole('link', { name: 'Dome gore 7' }).waitFor();
await shot('jobs');
await page.getByRole('link', { name: 'Dome gore 7' }).click();
await page.getByTestId('verdict').waitFor();
await page.waitForTimeout(500);
await settled(page);
await shot('lines-failing');
for (const [key, name] of [
  ['1', 'part'],
  ['5', 'resin'],
  ['3', 'stack-later'],
] as const) {
  await page.keyboard.press(key);
  await page.waitForTimeout(name === 'resin' ? 1500 : 400);
  await shot(name);
}
await page.keyboard.press('2');
await page.getByRole('tab', { name: 'Cut list' }).click();
await page.waitForTimeout(500);
await shot('cut-list');
await page.keyboard.press('4');
await page.getByLabel('Feed 3, from along').fill('2050 mm');
await page.getByLabel('Feed 3, from along').press('Enter');
await page.getByLabel('Feed 3, to along').fill('2.05 m');
await page.getByLabel('Feed 3, to along').press('Enter');
await page.waitForTimeout(500);
await page
  .getByText(/Tight|Comfortable/)
  .first()
  .waitFor({ timeout: 60_000 });
await page.waitForTimeout(1000);
await settled(page);
await shot('lines-mended');
await page.goto(`${page.url()}?t=42`);
await page.getByTestId('verdict').waitFor();
await settled(page);
await shot('lines-scrubbed');
await page.goto(server.url);
await page.getByRole('link', { name: 'Hydro spinner' }).click();
await page.getByTestId('verdict').waitFor();
await page.waitForTimeout(500);
await settled(page);
await shot('spinner');
await page.goto(server.url);
await page.getByRole('link', { name: 'Footbridge kerb plate' }).click();
await page.getByTestId('verdict').waitFor();
await page.waitForTimeout(500);
await settled(page);
await page.getByRole('tab', { name: 'Sequence' }).click();
await shot('kerb-sequence');
await page.getByLabel('What the board shows').first().click();
await page.getByTitle('Lag of the mould side').last().click();
await page.getByRole('tab', { name: 'Hoses' }).click();
await page.waitForTimeout(300);
await shot('kerb-lag');
await page.getByRole('tab', { name: 'Doubt' }).click();
await page.getByRole('button', { name: /Run it/ }).click();
await page.getByTestId('ensemble').waitFor();
await page.waitForTimeout(15_000);
await shot('kerb-doubt');
await page.goto(server.url);
await page.getByRole('link', { name: 'Rescue sled tray' }).click();
await page.getByRole('button', { name: /^1 Part/ }).click();
await page.getByRole('tab', { name: 'Zones' }).click();
await page.getByLabel('Name of Floor').focus();
await page.waitForTimeout(400);
await shot('part-zones');
await page.keyboard.press('Escape');
await page.getByRole('button', { name: /^2 Laminate/ }).click();
await page.getByRole('tab', { name: /Lashing/ }).click();
await page.locator('[data-ply="3"]').focus();
await page.waitForTimeout(400);
await shot('laminate');
await page.getByRole('button', { name: /^1 Part/ }).click();
await page.getByRole('link', { name: 'Print plan and ply book' }).click();
await page.getByTestId('printed-part').waitFor();
await page.waitForTimeout(400);
await page.screenshot({ path: `${target}/print.png`, fullPage: true });
await page.goto(`${server.url}/library`);
await page.getByText('Quad glass 850').waitFor();
await shot('library');
await page.goto(`${server.url}/moulds`);
await page.getByRole('button', { name: 'Sled tray mould' }).click();
await page.waitForTimeout(300);
await shot('moulds');
await page.goto(`${server.url}/shop`);
await page.getByLabel('Altitude above sea level').waitFor();
await page.waitForTimeout(300);
await shot('shop');
await browser.close();
await server.kill();
process.exit(0);
