import { expect, test } from '@jest/globals';
import { tellingMost } from './next-mark.ts';
import { weighShapes, type Shape } from './shapes.ts';

const shapes: Shape[] = [60, 60, 40].map((last, k) => ({
  ...{ id: `${k}`, event: k === 2 ? 'race:1' : null, prior: 1, last, atMarks: [] },
}));
const weighed = weighShapes(shapes, [], 0.05);
const last = shapes.map((shape) => shape.last);

test('a place at which the shapes differ tells more than one at which they agree', () => {
  const most = tellingMost(weighed, last, [
    { place: 'middle', times: [20, 20, 20] },
    { place: 'side', times: [25, 25, 12] },
  ])!;
  expect(most.place).toBe('side');
  expect(most.settles).toBeGreaterThan(0.5);
  expect(most.expected).toBeCloseTo((25 * 25 * 12) ** (1 / 3), 6);
});

test('where only the factor is open the place nearest to the end tells most', () => {
  const alikeShapes = weighShapes(
    shapes.map((s) => ({ ...s, last: 60 })),
    [],
    0.3,
  );
  const most = tellingMost(
    alikeShapes,
    [60, 60, 60],
    [
      { place: 'early', times: [5, 5, 5] },
      { place: 'late', times: [50, 50, 50] },
    ],
  )!;
  expect(most.place).toBe('late');
  expect(most.settles).toBeLessThan(1);
});

test('nothing ahead, nothing to watch', () => {
  expect(tellingMost(weighed, last, [])).toBeNull();
});
