import type { Page } from '@playwright/test';

/** Frames that are timed. */
export const FRAMES = 240;

/** The value below which a share of a list lies, to a tenth. */
export const at = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))]!.toFixed(1);

/** Frame to frame, and the work in each, ms, while a hand drags what lies at a place to and fro; px and frames. */
export function dragTimes(
  page: Page,
  drag: {
    readonly x: number;
    readonly y: number;
    /** What hears the moves: what lies there, or the nearest round it of this kind. */
    readonly heardBy: 'svg' | 'g';
    readonly across: { readonly by: number; readonly every: number };
    readonly down: { readonly by: number; readonly every: number };
    readonly end: 'pointerup' | 'pointercancel';
  },
) {
  return page.evaluate(
    ({ x, y, heardBy, across, down, end, frames }) =>
      new Promise<{ gaps: number[]; work: number[] }>((resolve) => {
        const target = document.elementFromPoint(x, y)!;
        const hears = target.closest<SVGElement>(heardBy)!;
        // Events made by a script carry no live pointer that could be captured.
        hears.setPointerCapture = () => undefined;
        const send = (type: string, dx: number, dy: number, at: Element) =>
          at.dispatchEvent(
            new PointerEvent(type, {
              ...{ bubbles: true, clientX: x + dx, clientY: y + dy, pointerId: 1, button: 0 },
            }),
          );
        send('pointerdown', 0, 0, target);
        const gaps: number[] = [];
        const work: number[] = [];
        let last = performance.now();
        let began = 0;
        const channel = new MessageChannel();
        channel.port1.onmessage = () => work.push(performance.now() - began);
        const step = (now: number) => {
          gaps.push(now - last);
          last = now;
          const n = gaps.length;
          if (n > frames) {
            send(end, 0, 0, hears);
            return resolve({ gaps: gaps.slice(5), work: work.slice(5) });
          }
          began = performance.now();
          send(
            'pointermove',
            across.by * Math.sin(n / across.every),
            down.by * Math.cos(n / down.every),
            hears,
          );
          // The message comes after the frame's script, style, layout and paint.
          channel.port2.postMessage(0);
          requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
    { ...drag, frames: FRAMES },
  );
}
export function printTimes(what: string, { gaps, work }: { gaps: number[]; work: number[] }) {
  console.log(`${what}:`);
  console.log(`  from frame to frame  median ${at(gaps, 0.5)} ms, 95 % under ${at(gaps, 0.95)} ms`);
  console.log(
    `  work in a frame      median ${at(work, 0.5)} ms, 95 % under ${at(work, 0.95)} ms (16.7 ms are 60 a second)`,
  );
}
/** Of the first that a selector finds, px. */
export const middleOf = async (page: Page, selector: string) => {
  const box = (await page.locator(selector).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
