import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { controlChart, type ChartRule } from './control-chart.ts';

describe('limits', () => {
  test('the worked example of the NIST/SEMATECH e-Handbook, 6.3.2.2: flow rate of ten batches (from memory)', () => {
    const chart = controlChart([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1])!;
    expect(chart.mean).toBeCloseTo(50.81, 6);
    expect(chart.meanRange).toBeCloseTo(1.8778, 4);
    expect(chart.upper).toBeCloseTo(55.8041, 3);
    expect(chart.lower).toBeCloseTo(45.8159, 3);
    expect(chart.signals).toEqual([]);
  });

  test('they move with the data: shifted and scaled alike', () => {
    const some = fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 3, maxLength: 30 });
    fc.assert(
      fc.property(some, fc.double({ min: -5, max: 5, noNaN: true }), (values, shift) => {
        const [a, b] = [controlChart(values)!, controlChart(values.map((value) => 2 * value + shift))!];
        expect(b.mean).toBeCloseTo(2 * a.mean + shift, 6);
        expect(b.upper).toBeCloseTo(2 * a.upper + shift, 6);
        expect(b.upperRange).toBeCloseTo(2 * a.upperRange, 6);
      }),
    );
  });

  test('one value has no chart; all alike have one without signals', () => {
    expect(controlChart([3])).toBeNull();
    expect(controlChart([3, 3, 3, 3])).toMatchObject({ lower: 3, upper: 3, signals: [] });
  });
});

describe('signals', () => {
  // Twenty that go to and fro by 1: mean 0, mean range close to 1, deviation 0.887.
  const calm = Array.from({ length: 20 }, (_, i) => (i % 2 ? 0.5 : -0.5));
  const rulesOf = (values: readonly number[], at = values.length - 1): ChartRule[] =>
    controlChart(values)!
      .signals.filter(({ index }) => index === at)
      .map(({ rule }) => rule);

  test('a calm process has none', () => {
    expect(controlChart(calm)!.signals).toEqual([]);
  });

  test('one far out: beyond the limit, and its range', () => {
    expect(rulesOf([...calm, 6])).toEqual(expect.arrayContaining(['beyond', 'range']));
  });

  test('two of three, four of five, eight on one side, six rising', () => {
    expect(rulesOf([...calm, 2.4, 0.2, 2.6])).toContain('twoOfThree');
    expect(rulesOf([...calm, 1.5, 1.6, 0.1, 1.5, 1.6])).toContain('fourOfFive');
    expect(rulesOf([...calm, ...Array.from({ length: 8 }, (_, i) => 0.6 + 0.1 * (i % 2))])).toContain(
      'eightOneSide',
    );
    expect(rulesOf([...calm, -0.5, -0.3, -0.1, 0.1, 0.3, 0.5])).toContain('sixTrend');
    expect(rulesOf([...calm, 0.5, 0.3, 0.1, -0.1, -0.3, -0.5])).toContain('sixTrend');
  });

  test('seven on one side and five rising are not yet', () => {
    expect(rulesOf([...calm.slice(0, 19), ...Array.from({ length: 7 }, () => 0.6)])).not.toContain(
      'eightOneSide',
    );
    expect(rulesOf([...calm.slice(0, 19), -0.6, -0.3, -0.1, 0.1, 0.3])).not.toContain('sixTrend');
  });
});
