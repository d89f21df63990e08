import type { Page } from '@playwright/test';

/** Taps the front of a rehearsal where a hand would point: farthest to the right at a share of its height. */
export async function tapFront(page: Page, height = 0.5) {
  const at = await page.getByTestId('real-front').evaluate((path: SVGPathElement, share) => {
    const svg = path.ownerSVGElement!;
    const frame = svg.getBoundingClientRect();
    const box = path.getBBox();
    const length = path.getTotalLength();
    const y = box.y + share * box.height;
    let best = { x: box.x, y };
    for (let n = 0; n <= 400; n++) {
      const p = path.getPointAtLength((length * n) / 400);
      if (Math.abs(p.y - y) < 6 && p.x > best.x) best = { x: p.x, y: p.y };
    }
    const matrix = svg.getScreenCTM()!;
    return { x: matrix.a * best.x + matrix.e - frame.left, y: matrix.d * best.y + matrix.f - frame.top };
  }, height);
  await page.getByTestId('run-plan').first().click({ position: at });
}
