import { describe, expect, test } from '@jest/globals';
import { pressureAfter, slopeSd } from './rise.ts';

describe('pressure in a shut bag', () => {
  test('a leak of 0.05 Pa/s under 400 Pa of moisture, read twice, says nine times too much', () => {
    const rise = { start: 1000, slope: 0.05, moisture: 400, settling: 300 };
    // 0.05 + 400 (1 - exp(-3)) / 900 = 0.05 + 380.085 / 900.
    const read = (pressureAfter(rise, 900) - pressureAfter(rise, 0)) / 900;
    expect(read).toBeCloseTo(0.05 + (400 * (1 - Math.exp(-3))) / 900, 12);
    expect(read / rise.slope).toBeGreaterThan(9);
  });

  test('a slope is known by the step of the gauge, the length and how often it was read', () => {
    const gauge = { resolution: 100, noise: 0 };
    // Two readings: r sqrt2/(sqrt12 T) = 100 x 1.41421 / (3.46410 x 900).
    expect(slopeSd(gauge, 2, 900)).toBeCloseTo((100 * Math.SQRT2) / (Math.sqrt(12) * 900), 10);
    expect(slopeSd(gauge, 2, 900)).toBeCloseTo(0.0454, 4);
    // Sixteen of them a minute apart, by the variance of a least-squares slope: sum of (t - mean)^2 written out.
    const times = Array.from({ length: 16 }, (_, i) => 60 * i);
    const spread = times.reduce((sum, t) => sum + (t - 450) ** 2, 0);
    expect(slopeSd(gauge, 16, 900)).toBeCloseTo(100 / Math.sqrt(12) / Math.sqrt(spread), 10);
    expect(slopeSd(gauge, 16, 900)).toBeCloseTo(0.0261, 4);
  });
});
