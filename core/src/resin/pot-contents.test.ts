import { expect, test } from '@jest/globals';
import type { ResinClock } from './resin-clock.ts';
import { createPotContents } from './pot-contents.ts';

/** Ages evenly to its gel. */
const evenly = (gelTime: number): ResinClock => ({
  gelTime,
  endsUnknown: false,
  viscosityAt: () => 1,
  ageAt: (time) => time / gelTime,
  fluidity: () => 0,
  timeAtFluidity: () => Infinity,
});
const batches = [
  { mixedAt: 0, pouredAt: 0, amount: 3, clock: evenly(10_000) },
  { mixedAt: 1000, pouredAt: 1200, amount: 2, clock: evenly(10_000) },
  { mixedAt: 3000, pouredAt: 3000, amount: 4, clock: evenly(10_000) },
];

test('the state of a topped-up pot is the mean by mass, worked by hand', () => {
  const { ageAt } = createPotContents(batches);
  expect(ageAt(600, 1)).toBeCloseTo(0.06, 12);
  // At 1200 s one of three is left, and two come to it: a third is 1200 s old, two thirds 200 s.
  expect(ageAt(1200, 2)).toBeCloseTo((0.12 + 2 * 0.02) / 3, 12);
  // At 3000 s one half of these is left: 0.5 of the first, 1 of the second, 4 fresh; all 500 s older.
  expect(ageAt(3000, 3.5)).toBeCloseTo((0.5 * 0.3 + 1 * 0.2 + 0) / 5.5, 12);
  expect(ageAt(3500, 5)).toBeCloseTo((0.5 * 0.35 + 1 * 0.25 + 4 * 0.05) / 5.5, 12);
});

test('what had been drawn by a pour between two questions is read between them, and a step taken back forgets it', () => {
  const { ageAt } = createPotContents(batches);
  const pours = () => [ageAt(800, 1), ageAt(1600, 2)];
  // 1200 s lies half way: 1.5 drawn, 1.5 left.
  const expected = (1.5 * 0.16 + 2 * 0.06) / 3.5;
  expect(pours()[1]).toBeCloseTo(expected, 12);
  expect(pours()[1]).toBeCloseTo(expected, 12);
});

test('past its gel a batch is gelled, and an empty pot holds what was poured last alone', () => {
  const { ageAt } = createPotContents([batches[0]!, { ...batches[1]!, clock: evenly(500) }]);
  expect(ageAt(1200, 3)).toBeCloseTo(0.4, 12);
  expect(ageAt(1600, 4)).toBe(1);
});
