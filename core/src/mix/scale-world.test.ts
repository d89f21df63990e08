import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { passScale, type ScaleConditions, type ScaleState } from './scale-world.ts';

const still: ScaleConditions = { pouring: 0, drift: 0, carried: 0 };
const empty: ScaleState = { time: 0, load: 0, followed: 0, crept: 0 };

test('a kilogram set down is shown to 1/e after a settling time, and whole after ten', () => {
  const down = { ...empty, load: 1 };
  expect(passScale(down, still, 0.6).followed).toBeCloseTo(1 - 1 / Math.E, 9);
  expect(passScale(down, still, 6).followed).toBeCloseTo(1, 4);
});

test('poured steadily it lags by what runs in a settling time; once that stops all of it is shown', () => {
  const poured = passScale(empty, { ...still, pouring: 0.05 }, 20);
  expect(poured.load).toBeCloseTo(1, 12);
  expect(poured.followed).toBeCloseTo(1 - 0.05 * 0.6, 6);
  expect(passScale(poured, still, 10).followed).toBeCloseTo(1, 6);
});

test('a bucket that leans shows less, a zero that creeps more', () => {
  const leaning = passScale({ ...empty, load: 2, followed: 2 }, { ...still, carried: 0.1 }, 30);
  expect(leaning.followed).toBeCloseTo(1.8, 9);
  expect(passScale(empty, { ...still, drift: 1e-5 }, 600).crept).toBeCloseTo(6e-3, 12);
});

test('in one step or in many it comes to the same', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(share, share, share, share, (pouring, drift, carried, cut) => {
      const conditions = { pouring, drift, carried };
      const start = { ...empty, load: 0.7, followed: 0.2 };
      const once = passScale(start, conditions, 3);
      const twice = passScale(passScale(start, conditions, 3 * cut), conditions, 3 * (1 - cut));
      for (const key of ['load', 'followed', 'crept', 'time'] as const)
        expect(twice[key]).toBeCloseTo(once[key], 9);
    }),
  );
});
