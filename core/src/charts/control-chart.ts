/** Ratio of the mean moving range of two to the standard deviation, and of its upper limit to its mean (n = 2). */
const D2 = 1.128;
const D4 = 3.267;

/** Points from which limits are worth drawing; fewer are shown without. From memory. */
export const ENOUGH_POINTS = 8;

export type ChartRule = 'beyond' | 'twoOfThree' | 'fourOfFive' | 'eightOneSide' | 'sixTrend' | 'range';

/** A point or the last of several that chance hardly explains. */
export interface Signal {
  readonly index: number;
  readonly rule: ChartRule;
}

/** Chart of individuals and moving ranges. */
export interface ControlChart {
  readonly mean: number;
  /** Standard deviation from one to the next, by the moving range. */
  readonly deviation: number;
  readonly lower: number;
  readonly upper: number;
  /** |x_i - x_(i-1)|; one fewer than points. */
  readonly ranges: readonly number[];
  readonly meanRange: number;
  readonly upperRange: number;
  /** By index, then by rule. */
  readonly signals: readonly Signal[];
}

/**
 * Individuals and moving range, limits at three standard deviations from the data themselves: mean +/- 2.66 mean range, D4 = 3.267.
 * Signals: one beyond a limit (1), two of three beyond two deviations on one side (2), four of five beyond one (3), eight in a row on one
 * side (4): Western Electric, Statistical Quality Control Handbook 1956; six in a row rising or falling: Nelson 1984 (J. Qual. Technol.
 * 16:237); a range above its limit.
 * @param values in order of happening, all finite
 * @returns null of fewer than two
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods 6.3.2.2. Checked by control-chart.test.ts.
 */
export function controlChart(values: readonly number[]): ControlChart | null {
  if (values.length < 2) return null;
  const mean = average(values);
  const ranges = values.slice(1).map((value, i) => Math.abs(value - values[i]!));
  const meanRange = average(ranges);
  const deviation = meanRange / D2;
  const upperRange = D4 * meanRange;
  const steps = values.map((value) => (deviation > 0 ? (value - mean) / deviation : 0));
  return {
    ...{ mean, deviation, ranges, meanRange, upperRange },
    lower: mean - 3 * deviation,
    upper: mean + 3 * deviation,
    signals: values.flatMap((_, index) => signalsAt(index, { values, steps, ranges, upperRange })),
  };
}

function signalsAt(
  index: number,
  on: { values: readonly number[]; steps: readonly number[]; ranges: readonly number[]; upperRange: number },
): Signal[] {
  const { values, steps, ranges, upperRange } = on;
  const last = (count: number) => (index + 1 >= count ? steps.slice(index + 1 - count, index + 1) : []);
  const here = steps[index]!;
  /** So many of the last ones, this one among them, lie further out on its side. */
  const beyond = (far: number, count: number, of: number) =>
    Math.abs(here) > far &&
    last(of).filter((step) => Math.sign(step) === Math.sign(here) && Math.abs(step) > far).length >= count;
  const run = index >= 5 ? values.slice(index - 5, index + 1) : [];
  const goes = (sign: number) =>
    run.length === 6 && run.slice(1).every((value, i) => sign * (value - run[i]!) > 0);
  const rules: readonly (readonly [ChartRule, boolean])[] = [
    ['beyond', Math.abs(here) > 3],
    ['twoOfThree', beyond(2, 2, 3)],
    ['fourOfFive', beyond(1, 4, 5)],
    ['eightOneSide', last(8).length === 8 && last(8).every((step) => step * here > 0)],
    ['sixTrend', goes(1) || goes(-1)],
    ['range', index > 0 && ranges[index - 1]! > upperRange],
  ];
  return rules.filter(([, holds]) => holds).map(([rule]) => ({ index, rule }));
}

const average = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
