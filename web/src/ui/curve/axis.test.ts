import { expect, test } from '@jest/globals';
import { linearTicks, logTicks, timeTicks } from './axis.ts';

const labels = (ticks: readonly { label: string }[]) => ticks.map(({ label }) => label);

test('steps are round, and no more than asked for', () => {
  expect(labels(linearTicks(0, 10, 5))).toEqual(['0', '2', '4', '6', '8', '10']);
  expect(labels(linearTicks(11.93, 12.31, 5))).toEqual(['12.0', '12.1', '12.2', '12.3']);
  expect(labels(linearTicks(-0.003, 0.004, 4))).toEqual(['-0.002', '0.000', '0.002', '0.004']);
  for (const [from, to] of [
    [0, 1e-4],
    [900, 94_000],
    [1, 1.001],
  ] as const)
    expect(linearTicks(from, to, 6).length).toBeLessThanOrEqual(7);
});

test('decades with their twos and fives, ones alone where there are many', () => {
  expect(labels(logTicks(8, 1000, 9))).toEqual(['10', '20', '50', '100', '200', '500', '1000']);
  expect(labels(logTicks(0.5, 2000, 8))).toEqual(['1', '10', '100', '1000']);
});

test('times as people count them', () => {
  expect(labels(timeTicks(0, 900, 6))).toEqual(['0 min', '5 min', '10 min', '15 min']);
  expect(labels(timeTicks(-10, 20, 6))).toEqual(['−0:10', '−0:05', '0:00', '0:05', '0:10', '0:15', '0:20']);
  expect(labels(timeTicks(0, 6 * 3600, 6))).toEqual(['0 h', '1 h', '2 h', '3 h', '4 h', '5 h', '6 h']);
});
