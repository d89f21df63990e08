import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { coarsestStep, partsByVolume, partsByWeight, readMix, smallestMix, splitTotal } from './ratio.ts';

/** Typical of an infusion epoxy and its hardener, kg/m3; common practice, no source. */
const densities = { resin: 1160, hardener: 970 };
const FLUID_OUNCE = 2.957353e-5;

describe('ratios', () => {
  test('100:43 by weight of 1000 g is 699.3 g and 300.7 g (common practice, no source; arithmetic)', () => {
    const { resin, hardener } = splitTotal(1, 43);
    expect(resin).toBeCloseTo(0.6993, 4);
    expect(hardener).toBeCloseTo(0.3007, 4);
  });

  test('3:1 by volume at 1.16 and 0.97 is 100:27.9, or 78.2 to 21.8, by weight (common practice, no source; arithmetic)', () => {
    const parts = partsByWeight(100 / 3, densities);
    expect(parts).toBeCloseTo((100 * 0.97) / (3 * 1.16), 9);
    expect(parts).toBeCloseTo(27.9, 1);
    const { resin, hardener } = splitTotal(100, parts);
    expect(resin).toBeCloseTo(78.2, 1);
    expect(hardener).toBeCloseTo(21.8, 1);
    // Weighed as if 3:1 were by weight, a fifth too much hardener is in it.
    expect(readMix({ resin: 3, hardener: 1 }, parts).off).toBeCloseTo((3 * 1.16) / (3 * 0.97) - 1, 9);
  });

  test('12 fl oz at 5:1 by volume are 10 and 2 fl oz (common practice, no source; arithmetic)', () => {
    const { resin, hardener } = splitTotal(12 * FLUID_OUNCE, 20);
    expect(resin / FLUID_OUNCE).toBeCloseTo(10, 9);
    expect(hardener / FLUID_OUNCE).toBeCloseTo(2, 9);
  });

  test('there and back is the same', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 150, noNaN: true }), (byVolume) => {
        expect(partsByVolume(partsByWeight(byVolume, densities), densities)).toBeCloseTo(byVolume, 9);
      }),
    );
  });

  test('a density of nothing is refused in words', () => {
    expect(() => partsByWeight(33, { resin: 0, hardener: 970 })).toThrow(/Density of the resin/);
    expect(() => readMix({ resin: 1, hardener: 1 }, NaN)).toThrow(/Enter what the data sheet says/);
  });
});

describe('a mix that has been weighed', () => {
  test('700 g with 330 g of hardener at 100:43: 67.4 g of resin bring it right (arithmetic)', () => {
    const reading = readMix({ resin: 0.7, hardener: 0.33 }, 43);
    expect(reading.add).toEqual({ what: 'resin', mass: expect.closeTo(0.0674, 4) });
    expect(reading.total).toBeCloseTo(0.7 + 0.33 + 0.33 / 0.43 - 0.7, 12);
    expect(reading.off).toBeCloseTo(0.33 / 0.301 - 1, 9);
  });

  test('whatever is added brings it to its ratio, and never by taking out', () => {
    const mass = fc.double({ min: 0.001, max: 50, noNaN: true });
    fc.assert(
      fc.property(mass, mass, fc.double({ min: 0.5, max: 120, noNaN: true }), (resin, hardener, parts) => {
        const { add, total } = readMix({ resin, hardener }, parts);
        const after = { resin, hardener };
        if (add) after[add.what] += add.mass;
        expect((100 * after.hardener) / after.resin).toBeCloseTo(parts, 6);
        expect(add?.mass ?? 0).toBeGreaterThanOrEqual(0);
        expect(total).toBeCloseTo(after.resin + after.hardener, 9);
      }),
    );
  });

  test('within its window nothing is added', () => {
    const window = { from: -0.02, to: 0.02 };
    expect(readMix({ resin: 1, hardener: 0.43 * 1.019 }, 43, window)).toMatchObject({
      isWithin: true,
      add: null,
    });
    expect(readMix({ resin: 1, hardener: 0.43 * 1.021 }, 43, window).add).not.toBeNull();
    expect(readMix({ resin: 0, hardener: 0.1 }, 43, window).add).toMatchObject({ what: 'resin' });
  });
});

test('a scale of 1 g at 2 % weighs 100:43 from 83 g up, and the way back gives its step (arithmetic)', () => {
  // 25 g of hardener, of which half a gram is 2 %.
  expect(smallestMix({ step: 0.001 }, 0.02, 43)).toBeCloseTo(0.025 * (143 / 43), 9);
  expect(smallestMix({ step: 0.001 }, 0.02, 43)).toBeCloseTo(0.083, 3);
  expect(coarsestStep(smallestMix({ step: 0.005 }, 0.02, 43), 0.02, 43)).toBeCloseTo(0.005, 12);
});
