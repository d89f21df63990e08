import { expect, test } from '@jest/globals';
import { rankCorrelation, summariseEnsemble, type EnsembleSample } from './ensemble.ts';

const sample = (fillTime: number, inputs: Record<string, number>, x = 0): EnsembleSample => ({
  inputs,
  fillTime,
  gelTime: 5000,
  fills: Number.isFinite(fillTime),
  flowUsed: fillTime / 5000,
  marks: [fillTime / 2],
  worstPlace: { x, y: 0 },
});

test('rank correlation: a worked example with one swap, ties, and what does not vary', () => {
  // Spearman: 1 - 6 sum d^2 / (n (n^2 - 1)); ranks 1 2 4 3 5 against 1..5: d^2 = 2, so 1 - 12/120 = 0.9.
  expect(rankCorrelation([10, 20, 40, 30, 50], [1, 2, 3, 4, 5])).toBeCloseTo(0.9, 12);
  expect(rankCorrelation([1, 2, 3], [9, 4, 1])).toBeCloseTo(-1, 12);
  expect(rankCorrelation([1, 1, 2, 2], [3, 3, 8, 8])).toBeCloseTo(1, 12);
  expect(rankCorrelation([1, 1, 1], [1, 2, 3])).toBeNaN();
});

test('a run that gels counts as later than any, in the chance, the spread and the ranks', () => {
  const samples = Array.from({ length: 21 }, (_, i) =>
    sample(
      i < 15 ? 1000 + 100 * i : Infinity,
      { slow: i, idle: 0, other: (i * 8) % 21 },
      i < 15 ? 0.01 * i : 3,
    ),
  );
  const summary = summariseEnsemble(samples, 0.5);
  expect(summary.chance).toBeCloseTo(15 / 21, 12);
  expect(summary.chanceRange.from).toBeLessThan(15 / 21);
  expect(summary.fill).toEqual({ early: 1200, middle: 2000, late: Infinity });
  expect(summary.marks[0]!.middle).toBe(1000);
  expect(summary.drivers.map(({ input }) => input)).toEqual(['slow', 'other']);
  expect(summary.drivers[0]!.correlation).toBeGreaterThan(0.95);
  expect(summary.worstPlaces.map(({ share }) => Math.round(21 * share))).toEqual([15, 6]);
});
