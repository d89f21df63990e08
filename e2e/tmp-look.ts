import { chromium } from '@playwright/test';
import { launchOptions } from './support/browser.ts';
import { newFolder, startServer } from './support/server.ts';
const server = await startServer(newFolder(), 4392);
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (error) => console.error('page error:', error.message));
page.on('console', (m) => m.type() === 'error' && console.error('console:', m.text()));
await page.goto(server.url);
await page.getByRole('link', { name: 'Footbridge kerb plate' }).click();
await page.getByTestId('verdict').waitFor();
await page.getByRole('button', { name: /^8 Review/ }).click();
await page.getByTestId('causes').waitFor();
await page.waitForTimeout(12000);
await page.screenshot({ path: '/tmp/r1.png' });
for (const [n, name] of [['2','Measured'],['3','Learned'],['4','Next time'],['5','Record'],['6','How causes are told']]) {
  await page.getByRole('tab', { name }).click();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `/tmp/r${n}.png` });
}
await browser.close();
await server.kill();
