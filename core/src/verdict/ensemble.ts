import { chanceRange } from './rule.ts';
import type { Point } from '../geometry/polygon.ts';

/** One run with inputs drawn from their spread. Times in s since first mix; Infinity where the front does not come before gel. */
export interface EnsembleSample {
  /** Standard normal value of each input, or 0 and 1 for what happens or does not. */
  readonly inputs: Readonly<Record<string, number>>;
  readonly fillTime: number;
  readonly gelTime: number;
  /** Everywhere wet before gel, and no more gas shut in than may be. */
  readonly fills: boolean;
  /** Share of the flow to gel that it uses; Infinity where the front does not get everywhere. */
  readonly flowUsed: number;
  readonly marks: readonly number[];
  /** Where it stayed dry or filled last. */
  readonly worstPlace: Point;
}

export interface EnsembleSummary {
  readonly count: number;
  /** Share that fills, with the range in which the chance lies nineteen times in twenty. */
  readonly chance: number;
  readonly chanceRange: { readonly from: number; readonly to: number };
  /** Tenth, fiftieth and ninetieth percentile of the last corner and of each mark. */
  readonly fill: Spread;
  readonly marks: readonly Spread[];
  /** Rank correlation of each input with the flow used, strongest first. */
  readonly drivers: readonly { readonly input: string; readonly correlation: number }[];
  /** Where runs ended worst, most frequent first, gathered within a reach. */
  readonly worstPlaces: readonly { readonly place: Point; readonly share: number }[];
}

export interface Spread {
  readonly early: number;
  readonly middle: number;
  readonly late: number;
}

/**
 * @param reach places nearer than this count as one, m
 * Source: rank correlation, Spearman 1904. Checked by ensemble.test.ts.
 */
export function summariseEnsemble(samples: readonly EnsembleSample[], reach: number): EnsembleSummary {
  const count = samples.length;
  const filled = samples.filter(({ fills }) => fills).length;
  const used = samples.map(({ flowUsed }) => flowUsed);
  const names = Object.keys(samples[0]?.inputs ?? {});
  return {
    count,
    chance: filled / Math.max(1, count),
    chanceRange: chanceRange(filled, count),
    fill: spreadOf(samples.map((sample) => sample.fillTime)),
    marks: (samples[0]?.marks ?? []).map((_, m) => spreadOf(samples.map((sample) => sample.marks[m]))),
    drivers: names
      .map((input) => ({
        input,
        correlation: rankCorrelation(
          samples.map((sample) => sample.inputs[input]),
          used,
        ),
      }))
      .filter(({ correlation }) => Number.isFinite(correlation))
      .sort((a, b) => Math.abs(b.correlation) - Math.abs(a.correlation)),
    worstPlaces: gather(
      samples.map((sample) => sample.worstPlace),
      reach,
    ),
  };
}

function spreadOf(times: readonly number[]): Spread {
  const sorted = [...times].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))] ?? NaN;
  return { early: at(0.1), middle: at(0.5), late: at(0.9) };
}

/** NaN where either list does not vary. */
export function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const [x, y] = [ranks(a), ranks(b)];
  const mean = (x.length + 1) / 2;
  let [xy, xx, yy] = [0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    xy += (x[i] - mean) * (y[i] - mean);
    xx += (x[i] - mean) ** 2;
    yy += (y[i] - mean) ** 2;
  }
  return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : NaN;
}

/** Ranks from 1; equal values share the mean of theirs. */
function ranks(values: readonly number[]): number[] {
  const order = values
    .map((_, i) => i)
    .sort((i, j) => (values[i] < values[j] ? -1 : values[i] > values[j] ? 1 : 0));
  const out = new Array<number>(values.length).fill(0);
  for (let n = 0; n < order.length;) {
    let end = n + 1;
    while (end < order.length && values[order[end]] === values[order[n]]) end += 1;
    for (let k = n; k < end; k++) out[order[k]] = (n + 1 + end) / 2;
    n = end;
  }
  return out;
}

function gather(places: readonly Point[], reach: number) {
  const groups: { place: Point; count: number }[] = [];
  for (const place of places) {
    const near = groups.find((group) => Math.hypot(group.place.x - place.x, group.place.y - place.y) < reach);
    if (near) near.count += 1;
    else groups.push({ place, count: 1 });
  }
  return groups
    .sort((a, b) => b.count - a.count)
    .map(({ place, count }) => ({ place, share: count / places.length }));
}
