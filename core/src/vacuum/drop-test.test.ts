import { describe, expect, test } from '@jest/globals';
import { createRandom, normalOf } from '../random.ts';
import { showingDrop, simulatedDrop } from '../test/drop-tests.ts';
import {
  causeOf,
  judgeDrop,
  mostThroughput,
  partsAfter,
  slopeOf,
  typicalRise,
  voidsOf,
} from './drop-test.ts';
import { possibleRises } from './rise-doubt.ts';
import { pressureAfter } from './rise.ts';

const GAUGE = { resolution: 100, noise: 20 };
/** A structural part of 6.6 L of resin at half an atmosphere, filled in an hour. */
const BUDGET = { voidLimit: 0.005, resinVolume: 6.6e-3, resinPressure: 50_000, fillTime: 3600, share: 0.5 };

describe('what a leak means', () => {
  test('5 mbar in 15 min in 12.3 L', () => {
    // 0.0123 m3 x 500 Pa / 900 s; 1 mbar L/s is 0.1 Pa m3/s; free air at 101 325 Pa.
    const throughput = (0.0123 * 500) / 900;
    expect(throughput).toBeCloseTo(6.83e-3, 5);
    expect(throughput * 10).toBeCloseTo(0.068, 3);
    expect((throughput * 3600) / 101_325).toBeCloseTo(0.243e-3, 6);
    // 0.5 x 6.83e-3 x 3600 / (50 000 x 6.6e-3).
    expect(voidsOf(throughput, BUDGET)).toBeCloseTo(0.0373, 4);
  });

  test('the largest that passes: 0.005 x 50 000 x 6.6e-3 / (0.5 x 3600)', () => {
    expect(mostThroughput(BUDGET)).toBeCloseTo(9.17e-4, 6);
    expect(voidsOf(mostThroughput(BUDGET), BUDGET)).toBeCloseTo(BUDGET.voidLimit, 12);
  });
});

describe('a test that is read off a gauge', () => {
  const random = createRandom(3);

  test('the interval of the leak holds the true one in 95 of 100', () => {
    let held = 0;
    const COUNT = 30;
    for (let n = 0; n < COUNT; n++) {
      const { rise, gauge, readings } = simulatedDrop(random);
      const { low, high } = slopeOf(possibleRises(readings, gauge, { seed: n }));
      if (low <= rise.slope && rise.slope <= high) held += 1;
    }
    // Of 30 at 95 % fewer than 25 comes by chance once in 300 (binomial); `npm run bench` takes 400.
    expect(held).toBeGreaterThanOrEqual(25);
  });

  test('a leak and a wet core that show are told apart after 15 min', () => {
    let told = 0;
    for (let n = 0; n < 20; n++) {
      const truth = n % 2 ? 'leak' : 'moisture';
      const { readings, gauge } = showingDrop(random, truth, 900);
      if (causeOf(possibleRises(readings, gauge, { seed: n }), 900).cause === truth) told += 1;
    }
    expect(told).toBeGreaterThanOrEqual(17);
  });

  test('a leak that anybody hears is read as what it is', () => {
    const rise = { start: 1000, slope: 40, moisture: 0, settling: 300 };
    const times = Array.from({ length: 31 }, (_, i) => 10 * i);
    const pressures = times.map((time) => Math.round(pressureAfter(rise, time) / 100) * 100);
    const { low, value, high } = slopeOf(possibleRises({ times, pressures }, GAUGE));
    expect(low).toBeLessThan(40);
    expect(high).toBeGreaterThan(40);
    expect(value / 40).toBeCloseTo(1, 1);
  });

  const judged = (slope: number, moisture: number, duration: number, gauge = GAUGE) => {
    const rise = { start: 1200, slope, moisture, settling: 400 };
    const times = Array.from({ length: Math.floor(duration / 10) + 1 }, (_, i) => 10 * i);
    const step = gauge.resolution;
    const pressures = times.map((time) => Math.round(pressureAfter(rise, time) / step) * step);
    const possible = possibleRises({ times, pressures }, gauge);
    return judgeDrop({
      ...{ possible, gauge, freeVolume: 0.0123, interval: 10, duration },
      throughputLimit: mostThroughput({ ...BUDGET, voidLimit: 0.02 }),
    });
  };

  test('a tight bag passes, a leaking one does not, and two minutes tell nothing', () => {
    // Limit: 4 x 9.17e-4 Pa m3/s in 12.3 L, 0.298 Pa/s.
    expect(judged(0.01, 0, 2400)).toMatchObject({ verdict: 'passes', wait: 0 });
    expect(judged(0.9, 0, 2400)).toMatchObject({ verdict: 'leaks', wait: 0 });
    const short = judged(0.01, 0, 120);
    expect(short.verdict).toBe('cannotTell');
    expect(short.wait).toBeGreaterThan(60);
  });

  test('a wet core is not called a leak', () => {
    expect(judged(0.01, 900, 2400).verdict).not.toBe('leaks');
    expect(judged(0.01, 900, 5400).verdict).toBe('passes');
  });

  test('a leak behind a wet core is never passed, however often it is looked at', () => {
    const random = createRandom(8);
    const fine = { resolution: 10, noise: 6 };
    const rise = { start: 100, slope: 0.35, moisture: 1400, settling: 900 };
    const times = Array.from({ length: 241 }, (_, i) => 15 * i);
    const pressures = times.map(
      (time) => Math.round((pressureAfter(rise, time) + 6 * normalOf(random)) / 10) * 10,
    );
    for (const duration of [300, 600, 900, 1200, 1500, 2400, 3600]) {
      const count = duration / 15 + 1;
      const possible = possibleRises(
        { times: times.slice(0, count), pressures: pressures.slice(0, count) },
        fine,
      );
      const { verdict } = judgeDrop({
        ...{ possible, gauge: fine, freeVolume: 0.0138, interval: 15, duration, throughputLimit: 8e-4 },
      });
      expect(verdict).not.toBe('passes');
      if (duration === 3600) expect(verdict).toBe('leaks');
    }
  });

  test('what cannot be judged is refused', () => {
    const possible = possibleRises({ times: [0, 60], pressures: [1000, 1000] }, GAUGE);
    const request = {
      possible,
      gauge: GAUGE,
      freeVolume: 0.01,
      throughputLimit: 1e-3,
      interval: 60,
      duration: 60,
    };
    expect(() => judgeDrop({ ...request, freeVolume: NaN })).toThrow(/Free volume/);
    expect(() => judgeDrop({ ...request, duration: 0 })).toThrow(/Length of the test/);
  });

  test('the rise that is drawn has the median leak and goes through the readings', () => {
    const { readings, gauge } = simulatedDrop(createRandom(4), { duration: 1800 });
    const possible = possibleRises(readings, gauge);
    const typical = typicalRise(possible, readings);
    const { value, low, high } = slopeOf(possible);
    expect(Math.abs(typical.slope - value)).toBeLessThan(0.1 * (high - low));
    const off = (own: ReturnType<typeof typicalRise>) => {
      let squares = 0;
      for (let i = 0; i < readings.times.length; i++)
        squares += (readings.pressures[i]! - pressureAfter(own, readings.times[i]!)) ** 2;
      return Math.sqrt(squares / readings.times.length);
    };
    // Readings that change between two steps are half a step off.
    expect(off(typical)).toBeLessThan(1.1 * Math.hypot(gauge.noise, gauge.resolution / 2));
  });

  test('the two parts of a rise add up to it', () => {
    const rise = { start: 1000, slope: 0.1, moisture: 300, settling: 200 };
    const { leak, moisture } = partsAfter(rise, 500);
    expect(rise.start + leak + moisture).toBeCloseTo(pressureAfter(rise, 500), 9);
    expect(leak).toBeCloseTo(50, 12);
  });
});
