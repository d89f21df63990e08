import { expect, test } from '@jest/globals';
import { fitViewport, niceStep, toPlan, toScreen, zoomAt } from '../../board/viewport.ts';
import { resinColour } from '../theme.ts';
import { fuseMarks, placeLabels } from './fuse-marks.ts';

const marks = fuseMarks({
  before: { mixed: 120, degassed: 420, open: 480 },
  events: [
    { name: 'Feed 1', kind: 'opens', time: 480 },
    { name: 'Feed 2', kind: 'opens', time: 1200 },
    { name: 'Feed 3', kind: 'opens', time: Infinity },
    { name: 'Vent', kind: 'reached', time: 3000 },
  ],
  fill: 3000,
  usable: 3600,
  gel: 5400,
});

test('the fuse names what happens in order, and nothing that happens after gel', () => {
  expect(marks.map((mark) => mark.label)).toEqual([
    'first mix',
    'mixed',
    'fill hose',
    'open Feed 1',
    'open Feed 2',
    'last corner',
    'usable to',
    'gel',
  ]);
  const two = {
    before: { mixed: 60, degassed: 60, open: 60 },
    events: [],
    fill: null,
    usable: null,
    gel: 5400,
  };
  expect(fuseMarks({ ...two, batches: [0, 900, 6000] }).map(({ label }) => label)).toEqual([
    'first mix',
    'mix batch 2',
    'gel',
  ]);
  // Thin to the end, or nobody knows: no such mark.
  for (const usable of [null, 5400]) {
    const facts = { before: { mixed: 0, degassed: 0, open: 0 }, events: [], fill: null, usable, gel: 5400 };
    expect(fuseMarks(facts).map(({ label }) => label)).toEqual(['first mix', 'gel']);
  }
});

test('labels never overlap, and the last corner and gel always have one', () => {
  for (const pixels of [400, 900, 1600]) {
    const placed = placeLabels(marks, (time) => (time / 5400) * pixels);
    const spans = placed
      .map(({ x, anchor, label }) =>
        anchor === 'end' ? [x - label.length * 6, x] : [x, x + label.length * 6],
      )
      .sort((a, b) => a[0]! - b[0]!);
    if (pixels > 400)
      for (let i = 1; i < spans.length; i++)
        expect(spans[i]![0]).toBeGreaterThanOrEqual(spans[i - 1]![1]! - 1);
    expect(placed.map((mark) => mark.kind)).toEqual(expect.arrayContaining(['fill', 'gel']));
  }
});

test('plan and screen agree both ways, and zoom keeps the point under the hand', () => {
  const view = fitViewport({ minX: -1, minY: 0, maxX: 2, maxY: 1 }, { width: 900, height: 500 });
  const back = toPlan(view, toScreen(view, { x: 0.7, y: 0.3 }));
  expect(back.x).toBeCloseTo(0.7, 12);
  expect(back.y).toBeCloseTo(0.3, 12);
  const at = { x: 300, y: 200 };
  const zoomed = zoomAt(view, at, 1.7);
  expect(toPlan(zoomed, at).x).toBeCloseTo(toPlan(view, at).x, 12);
  expect([niceStep(10, 7), niceStep(0.03, 5), niceStep(3500, 8)]).toEqual([2, 0.01, 500]);
});

test('front colours darken strictly, so they survive greyscale', () => {
  // Relative luminance weights: ITU-R BT.709.
  const luminance = (share: number) => {
    const [r, g, b] = resinColour(share).match(/\d+/g)!.map(Number) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  for (let i = 1; i <= 12; i++) expect(luminance(i / 12)).toBeLessThan(luminance((i - 1) / 12));
});
