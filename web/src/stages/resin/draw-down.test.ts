import { expect, test } from '@jest/globals';
import { bandPath, lastOf, linePath, snapped, timeOn } from './draw-down.ts';

const same = (value: number) => value;

test('times lie between the ends of the scale, and what is later at its end', () => {
  const scale = { width: 500, left: 50, inner: 400, end: 1000 };
  expect([0, 500, 1000, 5000].map((time) => timeOn(scale, time))).toEqual([50, 250, 450, 450]);
});

test('a pour is drawn as a step, and the band runs to the end on both sides', () => {
  const line = [
    { time: 0, mass: 5 },
    { time: 10, mass: 2 },
    { time: 10, mass: 4 },
  ];
  expect(linePath(line, same, same)).toBe('M0.0 5.0L10.0 2.0L10.0 4.0');
  const slow = [
    { time: 0, mass: 5 },
    { time: 12, mass: 3 },
  ];
  expect(bandPath(line, slow, 20, same, same)).toBe(
    'M0.0 5.0L10.0 2.0L10.0 4.0L20.0 4.0L20.0 3.0L12.0 3.0L0.0 5.0Z',
  );
  expect(bandPath([], slow, 20, same, same)).toBe('');
});

test('a hand moves a batch by quarters of a minute, never before the first mix nor past the end', () => {
  expect(snapped(98, 1000)).toBe(105);
  expect(snapped(-40, 1000)).toBe(0);
  expect(snapped(5000, 1000)).toBe(1000);
  expect(lastOf([])).toBe(0);
});
