import { LOCAL_SCATTER, shared, told, WILD, type MarkSeen } from './marks.ts';
import { logSum, solveSymmetric } from './small-algebra.ts';

/** ln of the one factor by which permeability over (porosity x viscosity) differs from the model's. */
export interface Factor {
  readonly mean: number;
  readonly deviation: number;
  /** How far each mark was believed: about 1 as it stands, towards 0 not at all. */
  readonly belief: readonly number[];
  /** ln of the probability density of what the marks told. */
  readonly evidence: number;
}

/** Below this a mark counts as doubtful and is said to be. */
export const DOUBTFUL = 0.3;
/** Degrees of freedom of Student's t by which marks scatter. */
const FREEDOM = 4;
/** Share of marks that are wild, where there are too few to tell by their company. */
const WILD_SHARE = 0.05;
/** From so many marks on their company tells. */
const COMPANY = 3;
const MOST_ROUNDS = 60;
/** Variance that no two marks share, so that they never tell the very same. */
const NUGGET = 1e-4;

/**
 * The factor by precision: a normal prior around 0 and marks that scatter with their deviations and share parts of their way.
 * @param prior standard deviation, > 0  @param belief divides the variance of each mark; 1 when left out
 * Source: normal theory, conjugate prior. Checked by factor.test.ts.
 */
export function byPrecision(
  marks: readonly MarkSeen[],
  prior: number,
  belief: readonly number[] = marks.map(() => 1),
): Factor {
  const n = marks.length;
  // A mark that is not believed is off by itself: what it shares with others stays as it is.
  const own = (j: number) => Math.max(marks[j]!.deviation ** 2 / belief[j]!, LOCAL_SCATTER ** 2 + NUGGET);
  const covariance = marks.map((a, i) => marks.map((b, j) => (i === j ? own(j) : shared(a, b))));
  const values = marks.map(told);
  const { solved: byOnes, logDeterminant } = solveSymmetric(
    covariance,
    values.map(() => 1),
  );
  const { solved: byValues } = solveSymmetric(covariance, values);
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  const precision = 1 / prior ** 2 + sum(byOnes);
  const mean = sum(byValues) / precision;
  const square = values.reduce((total, y, i) => total + y * byValues[i]!, 0) - mean ** 2 * precision;
  const spread = logDeterminant + Math.log(prior ** 2 * precision);
  return {
    mean,
    deviation: 1 / Math.sqrt(precision),
    belief,
    evidence: -0.5 * (n * Math.log(2 * Math.PI) + spread + square),
  };
}

/**
 * The factor that the marks tell, none of which can win alone against the others: from three on each is weighted by Student's t around
 * what they agree on; one or two by the chance that either is wild.
 * @param prior standard deviation of ln of the factor before any mark, > 0
 * Source: iteratively reweighted least squares, Lange, Little & Taylor 1989 (J. Am. Stat. Assoc. 84:881). Checked by factor.test.ts.
 */
export function factorOf(marks: readonly MarkSeen[], prior: number): Factor {
  return marks.length < COMPANY ? byMixture(marks, prior) : byCompany(marks, prior);
}

/** What the marks tell of a model, without its factor: see Factor. Source and check as factorOf. */
export const evidenceOf = (marks: readonly MarkSeen[], prior: number): number =>
  marks.length < COMPANY ? byMixture(marks, prior).evidence : robustEvidence(marks, marks.map(told), prior);

/** Every way in which some marks are wild, each by its evidence. */
function byMixture(marks: readonly MarkSeen[], prior: number): Factor {
  const ways = Array.from({ length: 2 ** marks.length }, (_, way) => {
    const isWild = marks.map((_, j) => ((way >> j) & 1) === 1);
    const wild = isWild.filter(Boolean).length;
    const factor = byPrecision(
      marks.map((mark, j) => (isWild[j] ? { ...mark, deviation: WILD } : mark)),
      prior,
    );
    const share = wild * Math.log(WILD_SHARE) + (marks.length - wild) * Math.log(1 - WILD_SHARE);
    return { isWild, factor, log: share + factor.evidence };
  });
  const evidence = logSum(ways.map(({ log }) => log));
  const weighted = (value: (way: (typeof ways)[number]) => number) =>
    ways.reduce((sum, way) => sum + Math.exp(way.log - evidence) * value(way), 0);
  const mean = weighted(({ factor }) => factor.mean);
  const variance = weighted(({ factor }) => factor.deviation ** 2 + (factor.mean - mean) ** 2);
  return {
    mean,
    deviation: Math.sqrt(variance),
    belief: marks.map((_, j) => weighted(({ isWild }) => (isWild[j] ? 0 : 1))),
    evidence,
  };
}

function byCompany(marks: readonly MarkSeen[], prior: number): Factor {
  const values = marks.map(told);
  let centre = medianOf(values);
  let factor = byPrecision(marks, prior);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const belief = marks.map(({ deviation }, j) => studentWeight((values[j]! - centre) / deviation));
    factor = byPrecision(marks, prior, belief);
    const isStill = Math.abs(factor.mean - centre) < 1e-6;
    centre = factor.mean;
    if (isStill) break;
  }
  return { ...factor, evidence: robustEvidence(marks, values, prior) };
}

const studentWeight = (distance: number) => (FREEDOM + 1) / (FREEDOM + distance ** 2);

/** Steps of the factor, in standard deviations of the prior, over which marks that may be wild are summed. */
const STEPS = Array.from({ length: 81 }, (_, i) => -4 + i / 10);
const STEP_LOG = Math.log(1 / 10);

/** ln of the density of the marks with the factor integrated out, each of them wild with its small chance. */
function robustEvidence(marks: readonly MarkSeen[], values: readonly number[], prior: number): number {
  return logSum(
    STEPS.map((z) => {
      let log = normalLog(z, 1) + STEP_LOG;
      for (let j = 0; j < marks.length; j++) log += oneLog(values[j]! - z * prior, marks[j]!.deviation);
      return log;
    }),
  );
}

const FAIR = Math.log(1 - WILD_SHARE);
const UNFAIR = Math.log(WILD_SHARE);

function oneLog(off: number, deviation: number): number {
  const a = FAIR + normalLog(off, deviation);
  const b = UNFAIR + normalLog(off, WILD);
  return a > b ? a + Math.log1p(Math.exp(b - a)) : b + Math.log1p(Math.exp(a - b));
}

const normalLog = (off: number, deviation: number) =>
  -0.5 * (off / deviation) ** 2 - Math.log(deviation) - 0.5 * Math.log(2 * Math.PI);

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return (sorted[Math.ceil(half) - 1]! + sorted[Math.floor(half)]!) / 2;
}
