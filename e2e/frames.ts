import { chromium } from '@playwright/test';
import { demoJobs } from '@wick/contract/demo/jobs';
import type { Job } from '@wick/contract/job';
import { launchOptions } from './support/browser.ts';
import { newFolder, startServer } from './support/server.ts';

/** Times the frames of a hand dragging a corner of a 200-cornered outline with zones, and prints them. */
const CORNERS = 200;
const FRAMES = 240;

const outline = Array.from({ length: CORNERS }, (_, i) => {
  const angle = (2 * Math.PI * i) / CORNERS;
  const radius = 0.7 + 0.08 * Math.cos(7 * angle);
  return { x: 1 + 1.4 * radius * Math.cos(angle), y: 0.8 + radius * Math.sin(angle) };
});
const gore = demoJobs[0]!;
const zone = (n: number): Job['zones'][number] => ({
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
const job: Job = {
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
};

const server = await startServer(newFolder(), 4392);
try {
  const browser = await chromium.launch(launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // tsx marks inner functions with a helper that the page does not have.
  await page.addInitScript({ content: 'globalThis.__name = (f) => f;' });
  const answer = await page.request.post(`${server.url}/api/jobs/import`, {
    headers: { 'content-type': 'text/plain' },
    data: JSON.stringify(job),
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${server.url}/jobs/${id}/part`);
  await page.locator('[data-corner="50"]').waitFor();
  await page.waitForTimeout(4000);
  const box = (await page.locator('[data-corner="50"]').boundingBox())!;
  const times = await page.evaluate(
    ({ x, y, frames }) =>
      new Promise<{ gaps: number[]; work: number[] }>((resolve) => {
        const target = document.elementFromPoint(x, y)!;
        const board = target.closest('svg')!;
        // Events made by a script carry no live pointer that could be captured.
        board.setPointerCapture = () => undefined;
        const send = (type: string, dx: number, dy: number, at: Element) =>
          at.dispatchEvent(
            new PointerEvent(type, {
              bubbles: true,
              clientX: x + dx,
              clientY: y + dy,
              pointerId: 1,
              button: 0,
            }),
          );
        send('pointerdown', 0, 0, target);
        const gaps: number[] = [];
        const work: number[] = [];
        let last = performance.now();
        let n = 0;
        const channel = new MessageChannel();
        let began = 0;
        channel.port1.onmessage = () => work.push(performance.now() - began);
        const step = (now: number) => {
          gaps.push(now - last);
          last = now;
          if (n++ === frames) {
            send('pointerup', 0, 0, board);
            resolve({ gaps: gaps.slice(5), work: work.slice(5) });
            return;
          }
          began = performance.now();
          send('pointermove', 30 * Math.sin(n / 9), 20 * Math.cos(n / 7), board);
          // The message comes after the frame's script, style, layout and paint.
          channel.port2.postMessage(0);
          requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    { x: box.x + box.width / 2, y: box.y + box.height / 2, frames: FRAMES },
  );
  const at = (list: number[], share: number) =>
    [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))]!.toFixed(1);
  console.log(`dragging a corner of ${CORNERS}, ${job.zones.length} zones, forecast following:`);
  console.log(
    `  from frame to frame  median ${at(times.gaps, 0.5)} ms, 95 % under ${at(times.gaps, 0.95)} ms`,
  );
  console.log(
    `  work in a frame      median ${at(times.work, 0.5)} ms, 95 % under ${at(times.work, 0.95)} ms (16.7 ms are 60 a second)`,
  );
  await browser.close();
} finally {
  await server.kill();
}
process.exit(0);
