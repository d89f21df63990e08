import { chromium, type Page } from '@playwright/test';
import { demoJobs } from '@wick/plan/demo/jobs';
import type { Job } from '@wick/contract/job/job';
import { jobOf, laidOut, type LaidJob } from '@wick/plan/job/laid';
import { launchOptions } from './support/browser.ts';
import { at, dragTimes, FRAMES, middleOf, printTimes } from './support/frame-times.ts';
import { workshopFolder } from '../scripts/workshop.mjs';
import { beginWith, newFolder, startServer } from './support/server.ts';

/** Times the frames of a hand dragging a corner of a 200-cornered outline with zones, a line, a curve of a million readings, and prints them. */
const CORNERS = 200;

const outline = Array.from({ length: CORNERS }, (_, i) => {
  const angle = (2 * Math.PI * i) / CORNERS;
  const radius = 0.7 + 0.08 * Math.cos(7 * angle);
  return { x: 1 + 1.4 * radius * Math.cos(angle), y: 0.8 + radius * Math.sin(angle) };
});
const gore = laidOut(demoJobs[0]!);
const zone = (n: number): LaidJob['zones'][number] => ({
  ...gore.zones[0]!,
  id: `zone-${n}`,
  name: `Zone ${n}`,
  purpose: 'part',
  outline: Array.from({ length: 40 }, (_, i) => ({
    x: 0.6 + 0.35 * n + 0.15 * Math.cos((Math.PI * i) / 20),
    y: 0.8 + 0.15 * Math.sin((Math.PI * i) / 20),
  })),
  laminate: { ...gore.laminate, plies: gore.laminate.plies.map(({ id }) => ({ through: id })) },
});
const job = jobOf({
  ...gore,
  name: 'Frames',
  part: { ...gore.part, outline, features: [] },
  zones: [zone(0), zone(1), zone(2)],
  lines: gore.lines.slice(0, 2).map((line, i) => ({
    ...line,
    points: [
      { x: 0.5 + 0.8 * i, y: 0.6 },
      { x: 0.5 + 0.8 * i, y: 1 },
    ],
  })),
});

/** A job of 5 000 nodes: a hand drags its second feed to and fro; then single moves are timed until the front on the board follows. */
const fine = jobOf({ ...gore, name: 'Fine', forecast: { ...gore.forecast, nodeCount: 5000 } });
const MOVES = 24;

async function dragLine(page: Page) {
  await open(page, fine, 'lines', '[data-line="feed-2"] .swell');
  await page.getByText(/refining|quick forecast/).waitFor({ state: 'detached', timeout: 60_000 });
  const box = (await page.locator('[data-line="feed-2"] .swell').boundingBox())!;
  const times = await page.evaluate(
    ({ x, y, frames, moves }) => {
      const target = document.elementFromPoint(x, y)!;
      const board = target.closest('svg')!;
      board.setPointerCapture = () => undefined;
      const send = (type: string, dx: number, at: Element) =>
        at.dispatchEvent(
          new PointerEvent(type, { bubbles: true, clientX: x + dx, clientY: y, pointerId: 1, button: 0 }),
        );
      const bands = board.querySelector('g[clip-path]')!;
      send('pointerdown', 0, target);
      const frameTimes = () =>
        new Promise<number[]>((resolve) => {
          const gaps: number[] = [];
          let last = performance.now();
          const step = (now: number) => {
            gaps.push(now - last);
            last = now;
            if (gaps.length > frames) return resolve(gaps.slice(5));
            send('pointermove', 40 * Math.sin(gaps.length / 11), board);
            requestAnimationFrame(step);
          };
          requestAnimationFrame(step);
        });
      const follow = async () => {
        const waits: number[] = [];
        for (let n = 0; n < moves; n++) {
          await new Promise((resolve) => setTimeout(resolve, 400));
          const wait = await new Promise<number>((resolve) => {
            const began = performance.now();
            const observer = new MutationObserver(() => {
              observer.disconnect();
              resolve(performance.now() - began);
            });
            observer.observe(bands, { subtree: true, childList: true, attributes: true });
            send('pointermove', 20 * Math.sin(1 + 2 * n), board);
          });
          waits.push(wait);
        }
        send('pointerup', 0, board);
        return waits;
      };
      return frameTimes().then(async (gaps) => ({ gaps, waits: await follow() }));
    },
    { x: box.x + box.width / 2, y: box.y + box.height / 2, frames: FRAMES, moves: MOVES },
  );
  const began = Date.now();
  await page.waitForTimeout(100);
  await page.getByText(/refining|quick forecast/).waitFor({ state: 'detached', timeout: 60_000 });
  const refined = Date.now() - began;
  console.log(`dragging a feed on a job of ${fine.forecast.nodeCount} nodes:`);
  console.log(
    `  from frame to frame  median ${at(times.gaps, 0.5)} ms, 95 % under ${at(times.gaps, 0.95)} ms`,
  );
  console.log(
    `  quick forecast after a move  median ${at(times.waits, 0.5)} ms, 95 % under ${at(times.waits, 0.95)} ms (100 wanted)`,
  );
  console.log(`  fine forecast after letting go ${refined} ms`);
}

async function open(page: Page, job: Job, stage: string, selector: string) {
  const answer = await page.request.post(`${server.url}/api/jobs/import`, {
    headers: { 'content-type': 'application/json' },
    data: JSON.stringify(job),
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${server.url}/jobs/${id}/${stage}`);
  await page.locator(selector).waitFor();
}

/** A curve of a million readings is dragged and drawn nearer by hand. */
const READINGS = 1_000_000;
const BATCH = 5000;
const APART = 333;

async function dragCurve(page: Page) {
  const send = async <T>(path: string, body: unknown): Promise<T> => {
    const answer = await page.request.post(`${server.url}${path}`, {
      headers: { 'content-type': 'application/json' },
      data: JSON.stringify(body),
    });
    return (await answer.json()) as T;
  };
  const { id: jobId } = await send<{ id: string }>('/api/jobs/import', jobOf({ ...gore, name: 'Million' }));
  const { word } = await send<{ word: string }>('/api/instruments', {
    ...{ id: 'million', name: 'Million', measures: 'absolutePressure', unit: 'Pa', kind: 'device' },
    ...{ resolution: 10, noise: 5 },
  });
  const began = Date.now() - READINGS * APART;
  const started = new Date(began).toISOString();
  await send(`/api/jobs/${jobId}/runs`, { id: 'million-run', kind: 'part', speed: 1, seed: 0 });
  const said = (id: string, body: object) => ({ id, at: started, by: '', body });
  await send('/api/runs/million-run/entries', {
    entries: [
      said('hangs', { kind: 'attach', instrumentId: 'million', place: 'bag' }),
      said('pulls', { kind: 'pull' }),
    ],
  });
  for (let from = 0; from < READINGS; from += BATCH) {
    const lines = Array.from({ length: BATCH }, (_, i) => {
      const n = from + i;
      const value = 1500 + 900 * Math.sin(n / 60_000) + (n % 11);
      return JSON.stringify({ id: n, at: new Date(began + n * APART).toISOString(), value });
    });
    await fetch(`${server.url}/api/readings`, {
      method: 'POST',
      headers: { authorization: `Bearer ${word}`, 'content-type': 'application/x-ndjson' },
      body: `${lines.join('\n')}\n`,
    });
  }
  await page.goto(`${server.url}/jobs/${jobId}/vacuum?pane=pull`);
  const chart = page.getByLabel('Pressure in the bag since the first pull');
  await chart.waitFor();
  await page.waitForTimeout(6000);
  const box = (await chart.boundingBox())!;
  const gaps = await page.evaluate(
    ({ x, y, frames }) =>
      new Promise<number[]>((resolve) => {
        const svg = document.elementFromPoint(x, y)!.closest('svg')!;
        svg.setPointerCapture = () => undefined;
        const point = (type: string, dx: number) =>
          svg.dispatchEvent(
            new PointerEvent(type, { bubbles: true, clientX: x + dx, clientY: y, pointerId: 1, button: 0 }),
          );
        point('pointerdown', 0);
        const all: number[] = [];
        let last = performance.now();
        const step = (now: number) => {
          all.push(now - last);
          last = now;
          if (all.length > 2 * frames) return resolve(all.slice(5));
          // Half of it dragged, half of it drawn nearer and away again.
          if (all.length < frames) point('pointermove', 260 * Math.sin(all.length / 25));
          else
            svg.dispatchEvent(
              new WheelEvent('wheel', {
                ...{ bubbles: true, cancelable: true, clientX: x, clientY: y },
                ctrlKey: true,
                deltaY: Math.floor((all.length - frames) / 30) % 2 === 0 ? -1 : 1,
              }),
            );
          requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    { x: box.x + box.width / 2, y: box.y + box.height / 2, frames: FRAMES },
  );
  console.log(`dragging and drawing nearer a curve of ${READINGS} readings:`);
  console.log(`  from frame to frame  median ${at(gaps, 0.5)} ms, 95 % under ${at(gaps, 0.95)} ms`);
}

/** The second batch of the kerb plate is dragged to and fro, the draw-down following. */
async function dragBatch(page: Page) {
  const kerb = demoJobs.find(({ name }) => name === 'Footbridge kerb plate')!;
  const batches = [0, 600].map((mixedAt, n) => ({
    ...{ id: `batch-${n}`, stationId: null, mixedAt },
    mass: n === 0 ? 2.4 : null,
  }));
  const bar = '[data-testid="batch-2"] .mix';
  await open(
    page,
    { ...kerb, name: 'Batches', resin: { ...kerb.resin, batches } },
    'resin?pane=batches',
    bar,
  );
  await page.waitForTimeout(9000);
  const times = await dragTimes(page, {
    ...(await middleOf(page, bar)),
    ...{ heardBy: 'g', across: { by: 200, every: 17 }, down: { by: 0, every: 1 }, end: 'pointercancel' },
  });
  printTimes('dragging a batch, the draw-down following', times);
}

/** A corner of the outline is dragged in a circle, the forecast following. */
async function dragCorner(page: Page) {
  const corner = '[data-corner="50"]';
  await open(page, job, 'part', corner);
  await page.waitForTimeout(4000);
  const times = await dragTimes(page, {
    ...(await middleOf(page, corner)),
    ...{ heardBy: 'svg', across: { by: 30, every: 9 }, down: { by: 20, every: 7 }, end: 'pointerup' },
  });
  printTimes(`dragging a corner of ${CORNERS}, ${job.zones.length} zones, forecast following`, times);
}

beginWith(await workshopFolder());
const server = await startServer(newFolder(), 4392);
try {
  const browser = await chromium.launch(launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // tsx marks inner functions with a helper that the page does not have.
  await page.addInitScript({ content: 'globalThis.__name = (f) => f;' });
  await dragCorner(page);
  await dragLine(page);
  await dragBatch(page);
  await dragCurve(page);
  await browser.close();
} finally {
  await server.kill();
}
process.exit(0);
