import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fitRise } from './rise-fit.ts';
import { pressureAfter, type Rise } from './rise.ts';

const GAUGE = { resolution: 1, noise: 0 };
const readingsOf = (rise: Rise, count = 91, step = 20) => {
  const times = Array.from({ length: count }, (_, i) => i * step);
  return { times, pressures: times.map((time) => pressureAfter(rise, time)) };
};

describe('what a rise is made of', () => {
  test('each kind is found again from exact readings', () => {
    const both = { start: 1500, slope: 0.2, moisture: 600, settling: 300 };
    const kinds = {
      flat: { ...both, slope: 0, moisture: 0 },
      leak: { ...both, moisture: 0 },
      moisture: { ...both, slope: 0 },
      both,
    };
    for (const [kind, rise] of Object.entries(kinds)) {
      const [best] = fitRise(readingsOf(rise), GAUGE);
      expect(best.kind).toBe(kind);
      expect(best.rise.start).toBeCloseTo(rise.start, 0);
      expect(best.rise.slope).toBeCloseTo(rise.slope, 3);
      expect(Math.abs(best.rise.moisture - rise.moisture)).toBeLessThan(2);
      if (rise.moisture > 0) expect(best.rise.settling / rise.settling).toBeCloseTo(1, 1);
    }
  });

  test('a straight line is the one of least squares, worked by hand', () => {
    const [best] = fitRise(
      { times: [0, 100, 200, 300], pressures: [1000, 1020, 1030, 1050] },
      { resolution: 10, noise: 0 },
    );
    // Mean time 150, mean pressure 1025: slope = (150 x 25 + 50 x 5 + 50 x 5 + 150 x 25) / (2 (150^2 + 50^2)) = 8000 / 50000.
    expect(best.kind).toBe('leak');
    expect(best.rise.slope).toBeCloseTo(0.16, 10);
    expect(best.rise.start).toBeCloseTo(1025 - 0.16 * 150, 8);
  });

  test('nothing comes out below nothing, whatever is read', () => {
    const pressure = fc.double({ min: 100, max: 100_000, noNaN: true });
    fc.assert(
      fc.property(fc.array(pressure, { minLength: 2, maxLength: 40 }), (pressures) => {
        for (const { rise, chiSquare } of fitRise(
          { times: pressures.map((_, i) => 30 * i), pressures },
          GAUGE,
        )) {
          expect(rise.slope).toBeGreaterThanOrEqual(0);
          expect(rise.moisture).toBeGreaterThanOrEqual(0);
          expect(Number.isFinite(chiSquare)).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });
});
