import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { launchOptions } from './support/browser.ts';
import { tapFront } from './support/real-front.ts';
import { workshopFolder } from '../scripts/workshop.mjs';
import { beginWith, newFolder, startServer } from './support/server.ts';

/** Takes the pictures of docs/screenshots from demo data. */
const target = process.argv[2] ?? fileURLToPath(new URL('../docs/screenshots', import.meta.url));
beginWith(await workshopFolder());
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
await page.getByRole('link', { name: 'Footbridge kerb plate' }).click();
await page.getByRole('button', { name: /^8 Review/ }).click();
await page.getByTestId('causes').waitFor();
await page.getByText(/ways in which it may have run/).waitFor({ state: 'detached', timeout: 120_000 });
await settled(page);
await shot('review');
await page.getByRole('link', { name: 'Book' }).click();
await page.getByTestId('chart').waitFor();
await page.waitForTimeout(500);
await shot('book');
await page.goto(server.url);
await page.getByRole('link', { name: 'Dome gore 7' }).click();
await page.getByTestId('verdict').waitFor();
await page.waitForTimeout(500);
await settled(page);
await shot('lines-failing');
await page.keyboard.press('1');
await page.waitForTimeout(400);
await shot('part');
await page.keyboard.press('4');
await page.getByRole('tab', { name: 'Lines' }).click();
await page.getByTestId('verdict').waitFor();
await page.getByRole('button', { name: 'What would fix it' }).first().click();
await page.getByRole('button', { name: 'Do it' }).first().waitFor({ timeout: 90_000 });
await page.getByRole('button', { name: 'Suggest layouts' }).click();
await page.getByTestId('suggestions').waitFor({ timeout: 60_000 });
await page.getByRole('button', { name: 'Suggest layouts' }).waitFor({ timeout: 120_000 });
await page.getByRole('button', { name: 'Take it up' }).nth(1).click();
await page.waitForTimeout(6000);
await settled(page);
await shot('layouts');
await page.goto(server.url);
await page.getByRole('link', { name: 'Footbridge kerb plate' }).click();
await page.getByTestId('verdict').waitFor();
await page.waitForTimeout(500);
await settled(page);
await page.getByRole('button', { name: /^3 Stack/ }).click();
await page.getByRole('tab', { name: 'At the vent' }).click();
await page.getByTestId('layer').filter({ hasText: 'flow mesh' }).click();
await page.waitForTimeout(500);
await shot('stack');
// Two batches, the second too late; then the first on the scale of a rehearsal.
await page.getByRole('button', { name: /^5 Resin/ }).click();
await page.waitForTimeout(2500);
await shot('resin');
await page.getByRole('tab', { name: /^Batches/ }).click();
await page.getByRole('button', { name: 'Take these' }).click();
await page.waitForTimeout(1000);
await settled(page);
await page.getByLabel('Batch 2 mixed at').fill('14 min');
await page.getByLabel('Batch 2 mixed at').press('Enter');
await page.waitForTimeout(1000);
await settled(page);
await page.waitForTimeout(1500);
await shot('batches');
await page.getByRole('tab', { name: 'Mix sheet' }).click();
await page.getByRole('button', { name: 'Mix by it' }).click();
await page.getByLabel('Rehearse').selectOption({ label: 'with a simulated bag' });
// Its bag was never tested: somebody goes on past the hold.
await page.getByRole('button', { name: 'Go on past it …' }).click();
await page.getByLabel('Name of who goes on past it').fill('Ada');
await page.getByLabel('Reason for going on past it').fill('Mixing is what is rehearsed');
await page.getByRole('button', { name: 'Ada goes on past it' }).click();
await page.getByRole('button', { name: 'Begin this batch' }).click();
await page.getByRole('button', { name: 'Bucket on the scale' }).click();
await page.getByText('180 g').first().waitFor();
await page.getByRole('button', { name: 'Set to zero' }).click();
const pour = async (name: string, duration: number) => {
  const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.waitForTimeout(duration);
  await page.mouse.up();
};
await pour('Pour', 33_000);
await page.getByRole('button', { name: /^Take \d+ g of resin/ }).click();
await pour('Pour', 12_500);
await page.getByRole('button', { name: /^Take \d+ g of hardener/ }).waitFor();
await shot('mixing');
await page.goto(server.url);
await page.getByRole('link', { name: 'Rescue sled tray' }).click();
await page.getByRole('button', { name: /^3 Stack/ }).click();
await page.getByRole('tab', { name: 'Bag' }).click();
await page.waitForTimeout(800);
await shot('bag');
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
// A bag that leaks at a corner of its tape, rehearsed.
await page.goto(server.url);
await page.getByRole('link', { name: 'Dome gore 7' }).first().click();
await page.getByTestId('verdict').waitFor();
await settled(page);
await page.keyboard.press('6');
await page.getByPlaceholder('your name').first().fill('Ada');
await page.keyboard.press('Tab');
await page.getByLabel('Rehearse').selectOption({ label: 'sixty times as quick' });
await page.getByRole('button', { name: 'Pull', exact: true }).click();
await page.waitForTimeout(6000);
await page.getByRole('tab', { name: 'Gauges' }).click();
await page.getByLabel('Where it leaks').selectOption({ label: 'Tape corner 3' });
await page.getByRole('button', { name: 'A leak', exact: true }).click();
await page.getByRole('button', { name: 'A wet core', exact: true }).click();
await page.getByRole('tab', { name: 'Drop test' }).click();
await page.getByRole('button', { name: 'Shut the valve' }).click();
await page.getByText('Find the leak').waitFor({ timeout: 120_000 });
await page.waitForTimeout(5000);
await shot('drop-test');
await page.getByRole('tab', { name: 'Leak walk' }).click();
for (const place of ['Pleat 1, Turn-up at the foot', 'Pleat 2, Turn-up at the foot'])
  await page.getByRole('button', { name: `Sound: ${place}` }).click();
await page.getByRole('button', { name: 'Leak found: Tape corner 3' }).click();
await page.waitForTimeout(500);
await shot('leak-walk');
// A part by its card, as far as its release, and then its plies.
await page.keyboard.press('7');
await page.getByRole('button', { name: 'Next part' }).click();
await page.getByRole('button', { name: 'Yes, begin the next part' }).click();
const next = page.getByTestId('next-step');
const finish = async (count: number) => {
  for (let n = 0; n < count; n++) {
    const title = await next.locator('.title').first().textContent();
    await next.getByRole('button', { name: 'Done', exact: true }).click();
    await next.locator('.title').filter({ hasNotText: title! }).first().waitFor();
  }
};
await next.getByText('Look the mould over').waitFor();
await finish(3 + 2);
await page.waitForTimeout(800);
await shot('run');
// The fill of a plate as it runs, rehearsed on a tablet, and its cure.
await page.setViewportSize({ width: 1024, height: 768 });
await page.goto(server.url);
await page.getByRole('link', { name: 'Footbridge kerb plate' }).click();
await page.getByTestId('verdict').waitFor();
await page.keyboard.press('7');
await page.getByLabel('Rehearse').selectOption({ label: 'sixty times as quick' });
await page.getByRole('tab', { name: 'Infuse' }).click();
await page.getByRole('button', { name: 'Let it race along an edge' }).click();
await page.getByRole('button', { name: 'It draws' }).click();
await page.waitForTimeout(12_000);
await page.getByRole('button', { name: 'They meet now' }).click();
await page.getByLabel('Batch poured').fill('5 kg');
await page.getByLabel('Batch poured').press('Enter');
await page.waitForTimeout(6000);
await page.getByTestId('next-action').getByRole('button', { name: 'Open', exact: true }).click();
await page.getByTestId('real-front').waitFor();
for (const [wait, height] of [
  [5000, 0.95],
  [200, 0.1],
  [4000, 0.95],
  [200, 0.1],
] as const) {
  await page.waitForTimeout(wait);
  await tapFront(page, height);
}
await page.waitForTimeout(2500);
await page.locator('.run-stage .bench').evaluate((bench) => bench.scrollTo(0, 96));
await shot('fill');
await page.getByRole('tab', { name: 'Cure' }).click();
await page.getByTestId('heat').waitFor();
await page.waitForTimeout(1500);
await shot('cure');
await browser.close();
await server.kill();
process.exit(0);
