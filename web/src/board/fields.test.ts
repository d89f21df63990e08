import { expect, test } from '@jest/globals';
import { assess } from '@wick/plan/forecast/assess';
import { demoShop } from '@wick/plan/demo/jobs';
import { laidDemos } from '@wick/plan/test/laid-demos';
import { fieldBands, fieldViews, pressureAt } from './fields.ts';

const kerb = laidDemos[2]!;
const { flow } = assess(kerb, demoShop, { nodeCount: 250, steps: 40 });
const averaged = assess(laidDemos[1]!, demoShop, { nodeCount: 250, steps: 40, layers: false }).flow;

test('a view is offered where the forecast tells it, and nowhere else', () => {
  const offered = (of: typeof flow) =>
    fieldViews.filter((view) => view.values(of, NaN, null) !== null).map(({ id }) => id);
  expect(offered(flow)).toEqual(['pressure', 'lag', 'thickness', 'fraction']);
  expect(offered(averaged)).toEqual(['pressure']);
});

test('pressure is that of the nearest moment, the last when none is given', () => {
  const { frames } = flow;
  expect(pressureAt(flow, NaN)).toBe(frames.at(-1)!.pressure);
  expect(pressureAt(flow, frames[3]!.time * 1.0001)).toBe(frames[3]!.pressure);
  expect(pressureAt({ ...flow, frames: [] }, 0)).toBeNull();
  for (const { pressure } of frames)
    pressure.forEach((p) => expect(p).toBeGreaterThanOrEqual(kerb.vacuum.ventPressure! - 1));
});

test('bands cover the known part, each inside the one before, and darken with the value', () => {
  const view = fieldViews[0]!;
  const bands = fieldBands(flow, pressureAt(flow, flow.frames[20]!.time)!, view);
  const areaOf = (rings: number[][]) =>
    rings.reduce((sum, ring) => {
      let twice = 0;
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
        twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
      return sum + twice / 2;
    }, 0);
  const areas = bands.map(({ rings }) => areaOf(rings));
  expect(areas[0]).toBeCloseTo(1.3 * 0.45, 6);
  for (let i = 1; i < areas.length; i++) expect(areas[i]!).toBeLessThanOrEqual(areas[i - 1]! + 1e-9);
  const darkness = bands.map(({ colour }) =>
    colour
      .match(/\d+/g)!
      .map(Number)
      .reduce((a, b) => a + b),
  );
  for (let i = 1; i < darkness.length; i++) expect(darkness[i]!).toBeGreaterThan(darkness[i - 1]!);
});

test('a field without spread is one band; one without values is none', () => {
  const { nodeCount } = flow.mesh;
  const one = fieldBands(flow, new Float64Array(nodeCount).fill(7), fieldViews[0]!);
  expect(one.map(({ from }) => from)).toEqual([7]);
  expect(fieldBands(flow, new Float64Array(nodeCount).fill(NaN), fieldViews[0]!)).toEqual([]);
});

test.each([
  ['mm', 1e-3],
  ['in', 0.0254],
  ['m', 1],
])('bands start on round values of %s', (unit, metre) => {
  const { nodeCount, positions } = flow.mesh;
  // From 13.7 mm to 1.31 m along the kerb.
  const along = Float64Array.from({ length: nodeCount }, (_, i) => 0.0137 + positions[3 * i]!);
  const bands = fieldBands(flow, along, { colour: () => '', quantity: 'length' }, unit);
  const starts = bands.map(({ from }) => from / metre).reverse();
  const step = starts[1]! - starts[0]!;
  const digit = step / 10 ** Math.floor(Math.log10(step * 1.0001));
  expect([1, 2, 5].some((round) => Math.abs(digit - round) < 1e-6)).toBe(true);
  starts.forEach((from) => expect(Math.abs(from / step - Math.round(from / step))).toBeLessThan(1e-6));
  expect(starts.length).toBeGreaterThanOrEqual(4);
  expect(starts.length).toBeLessThanOrEqual(10);
  expect(starts[0]! * metre).toBeLessThanOrEqual(0.04);
});
