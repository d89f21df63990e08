import type { JobListItem } from '@wick/contract/api';
import { demoJobs } from '@wick/plan/demo/jobs';
import { test as base, expect, type Page } from '@playwright/test';
import { QUICK } from './quick-workshop.ts';
import { newFolder, startServer, type RunningServer } from './server.ts';

/** A server with demo data for all journeys of a worker: one that would be in the way of others opens a copy of a job, or a server of its own. */
export const test = base.extend<{ home: string }, { server: RunningServer }>({
  server: [
    async ({}, use, info) => {
      const server = await startServer(newFolder(), 4300 + info.workerIndex);
      await use(server);
      await server.kill();
    },
    { scope: 'worker' },
  ],
  home: async ({ server }, use) => {
    await use(server.url);
    await clearAway(server.url);
  },
});

export { expect };

const TRY_OUT = 'Try-out';

/** A job that was tried out goes with its journey: those that come after find the workshop's own. */
async function clearAway(home: string): Promise<void> {
  const list = (await (await fetch(`${home}/api/jobs`)).json()) as JobListItem[];
  for (const { id, name, revision } of list)
    if (name === TRY_OUT) await fetch(`${home}/api/jobs/${id}?revision=${revision}`, { method: 'DELETE' });
}

export async function openDemo(page: Page, home: string, name: string) {
  await page.goto(home);
  await page.getByRole('link', { name, exact: true }).first().click();
  await expect(page.getByTestId('verdict')).toBeVisible();
}

/**
 * Opens a demo job as a new one under a name of its own: neither is in the way of other journeys.
 * @param warmth of room and mould, K
 * @param layers mesh and plies are told apart where the job would do so by itself: ten times the work
 */
export async function openCopy(
  page: Page,
  home: string,
  name: string,
  { warmth, layers = false }: { readonly warmth?: number; readonly layers?: boolean } = {},
) {
  const demo = demoJobs.find((one) => one.name === name)!;
  const resin = { ...demo.resin, temperature: warmth ?? null, mouldTemperature: null };
  const forecast = { ...demo.forecast, ...(layers ? {} : { layers }), nodeCount: QUICK };
  const job = { ...demo, forecast, ...(warmth === undefined ? {} : { resin }) };
  const answer = await page.request.post(`${home}/api/jobs/import`, {
    headers: { 'content-type': 'application/json' },
    data: JSON.stringify({ ...job, name: TRY_OUT }),
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${home}/jobs/${id}/lines`);
  await expect(page.getByTestId('verdict')).toBeVisible();
}

/** Waits until the change has reached the server. */
export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveText(/^saved/);

/** Drags from the middle of an element by pixels, as a hand would: several moves. */
export async function dragBy(page: Page, from: { x: number; y: number }, by: { x: number; y: number }) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(from.x + (by.x * i) / 8, from.y + (by.y * i) / 8);
  await page.mouse.up();
}

export async function centreOf(page: Page, selector: string) {
  const box = (await page.locator(selector).first().boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** A job on the plain rectangle, its Part stage open. */
export async function startJob(page: Page, home: string) {
  await page.goto(home);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('button', { name: 'Start the job' }).click();
  await expect(page).toHaveURL(/\/part$/);
}

/** Opens a demo job on one of its stages, whether it has a forecast or not. */
export async function openStage(page: Page, home: string, name: string, stage: string) {
  await page.goto(home);
  await page.getByRole('link', { name, exact: true }).first().click();
  await page.getByRole('button', { name: new RegExp(`^\\d ${stage}`) }).click();
}

/** Where a place of the plan is on the screen, from two corners of the default plate, 1200 x 800 mm. */
export async function plateScale(page: Page) {
  const [low, high] = [await centreOf(page, '[data-corner="0"]'), await centreOf(page, '[data-corner="2"]')];
  return (x: number, y: number) => ({
    x: low.x + ((high.x - low.x) * x) / 1200,
    y: low.y + ((high.y - low.y) * y) / 800,
  });
}

export async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }) {
  await dragBy(page, from, { x: to.x - from.x, y: to.y - from.y });
}

/** Leaves whatever field has the focus, so that keys are commands. */
export const leaveField = (page: Page) => page.evaluate(() => (document.activeElement as HTMLElement).blur());
