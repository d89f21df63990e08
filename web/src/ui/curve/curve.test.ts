import { describe, expect, test } from '@jest/globals';
import { pathsOf, rangeInSight, shareIn, zoomed, type ChartCurve } from './curve.ts';

const curve = (values: number[], changes: Partial<ChartCurve> = {}): ChartCurve => ({
  ...{ id: 'c', label: 'c', kind: 'measured' },
  ats: values.map((_, n) => n * 1000),
  values,
  ...changes,
});
const plain = { x: (at: number) => at / 100, y: (value: number) => value };

describe('what is in sight', () => {
  test('decides the range, with room; what lies outside, or is no number, does not', () => {
    const { low, high } = rangeInSight([curve([500, 10, 20, NaN, 900])], [], { from: 1000, to: 3000 }, false);
    // Eight hundredths of ten to either side.
    expect([low, high]).toEqual([10 - 0.8, 20 + 0.8]);
    expect(rangeInSight([], [], { from: 0, to: 1 }, false).high).toBeGreaterThan(1);
  });

  test('takes the band and a line that is near into it', () => {
    const banded = curve([10, 12], { lows: [8, 11], highs: [13, 15] });
    const all = { from: 0, to: 9000 };
    const line = (value: number) => [{ label: 'best', value, tone: 'tide' as const }];
    expect(rangeInSight([banded], [], all, false).low).toBeLessThan(8);
    expect(rangeInSight([banded], [], all, false).high).toBeGreaterThan(15);
    expect(rangeInSight([banded], line(7), all, false).low).toBeLessThan(7);
    expect(rangeInSight([banded], line(0.1), all, false).low).toBeGreaterThan(5);
    expect(rangeInSight([banded], line(0.1), all, true).low).toBeCloseTo(0.1 / 1.3, 12);
  });

  test('is drawn, and one place to either side', () => {
    const { line, band } = pathsOf(curve([0, 1, 2, 3, 4, 5]), { from: 1500, to: 2500 }, plain);
    expect(line).toBe('M10.0 1.0L20.0 2.0L30.0 3.0');
    expect(band).toBe('');
    const banded = pathsOf(curve([1, 2], { lows: [0, 1], highs: [3, 4] }), { from: 0, to: 5000 }, plain);
    expect(banded.band).toBe('M0.0 3.0L10.0 4.0L10.0 1.0L0.0 0.0Z');
    expect(pathsOf(curve([]), { from: 0, to: 1 }, plain)).toEqual({ line: '', band: '' });
  });
});

test('a value stands between the ends, by its logarithm on a scale of decades', () => {
  expect(shareIn({ low: 10, high: 20 }, 15, false)).toBe(0.5);
  expect(shareIn({ low: 1, high: 100 }, 10, true)).toBeCloseTo(0.5, 12);
  expect(shareIn({ low: 10, high: 20 }, 1e9, false)).toBe(2);
  expect(shareIn({ low: 1, high: 100 }, -5, true)).toBe(-1);
});

test('drawn nearer the place under the hand stays; there is a nearest and a farthest', () => {
  const nearer = zoomed({ from: 0, to: 100_000 }, 0.5, 0.25);
  expect(nearer).toEqual({ from: 12_500, to: 62_500 });
  expect(nearer.from + 0.25 * (nearer.to - nearer.from)).toBe(25_000);
  const span = ({ from, to }: { from: number; to: number }) => to - from;
  expect(span(zoomed({ from: 0, to: 6000 }, 0.1, 0.5))).toBe(5000);
  expect(span(zoomed({ from: 0, to: 8e9 }, 10, 0.5))).toBe(90 * 86_400_000);
});
