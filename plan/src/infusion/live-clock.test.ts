import { describe, expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { warmedClock } from '@wick/core/resin/warmed-clock';
import { clockOf } from '@wick/core/verdict/verdict';
import { runConditionsOf } from '../resin/run.ts';
import { driveShareOf } from './live-clock.ts';
import { plate, shop, under } from './test/plate.ts';

const run = runConditionsOf(plate, shop)!;
const warm = (at: number, kelvin: number): [number, EntryBody] => [
  at,
  { kind: 'warmth', temperature: run.temperature + kelvin, instrumentId: null },
];

describe('the clock of a run as it goes', () => {
  test('without a thermometer it is the plan’s, from when it was opened', () => {
    const { clock } = under([]);
    expect(clock.clock.gelTime).toBeCloseTo(clockOf(run).gelTime, 6);
    expect([clock.hasTemperature, clock.hasPressure, clock.isKnown]).toEqual([false, false, true]);
  });

  test('what was told last holds on: warmed once at half an hour it is warm ever after', () => {
    const { clock } = under([warm(-10, 0), warm(1800, 5)]);
    const cold = { clock: clockOf({ ...run, drift: 0 }), temperature: run.temperature };
    const expected = warmedClock(run.resin, cold, 1800, run.temperature + 5);
    expect(clock.clock.gelTime).toBeCloseTo(expected.gelTime, 6);
    expect(clock.clock.gelTime).toBeLessThan(0.85 * cold.clock.gelTime);
    expect(clock.driven.at(5000) / expected.fluidity({ from: run.openTime, to: 5000 })).toBeCloseTo(1, 9);
    expect(clock.run.temperature).toBe(run.temperature + 5);
  });

  test('told twice the same it is as told once, and warmth after gel changes nothing', () => {
    const once = under([warm(0, 2)]).clock.clock;
    expect(under([warm(0, 2), warm(900, 2)]).clock.clock.gelTime).toBeCloseTo(once.gelTime, 3);
    expect(under([warm(0, 2), warm(2 * once.gelTime, 8)]).clock.clock.gelTime).toBe(once.gelTime);
  });

  test('warmer than the resin’s data cover it goes on with what they do, and says so', () => {
    const { clock } = under([warm(0, 0), warm(1200, 60)]);
    expect(clock.isKnown).toBe(false);
    expect(clock.clock.gelTime).toBeCloseTo(under([warm(0, 0)]).clock.clock.gelTime, 6);
  });

  test('a bag at ambient drives nothing, one at the planned pressure all', () => {
    const share = driveShareOf(plate, shop);
    expect(share(93_869.116)).toBeCloseTo(0, 6);
    expect(share(1500)).toBeCloseTo(1, 9);
  });
});
