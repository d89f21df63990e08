import { solveSymmetric } from '../reforecast/small-algebra.ts';

/** Standard deviation of ln of what differs from run to run of the same plan, before a shop has its own. From memory. */
export const RUN_SCATTER = 0.15;
/** Runs from which a shop's own scatter is estimated; until then, and as so many more runs, the usual one counts. */
const ENOUGH_RUNS = 4;
/** No two runs are ever closer than this share of what is usual. From memory. */
const LEAST_SHARE = 1 / 3;
const ROUNDS = 8;

/** What one run told of several values at once: sum of share x ln(truth) = told, give or take. */
export interface RunTold {
  readonly runId: string;
  /** How ln of what was measured moves with ln of each value: d ln / d ln, by the value's id. */
  readonly shares: ReadonlyMap<string, number>;
  /** ln of the product that was measured, against the values as they were before anything was learned. */
  readonly told: number;
  /** Standard deviation of it by the measuring alone. */
  readonly deviation: number;
}

/** A value before anything was learned: 1, give or take. */
export interface Unlearned {
  readonly id: string;
  /** Standard deviation of ln of it. */
  readonly deviation: number;
}

export interface LearnedFactor {
  readonly id: string;
  /** By which it differs from what it was taken for: its middle, > 0 */
  readonly factor: number;
  /** Standard deviation of ln of it. */
  readonly deviation: number;
  /** With what differs from run to run: never narrower than that, whatever number of runs. */
  readonly ahead: number;
  /** Runs that told of it, in the order given. */
  readonly runIds: readonly string[];
}

export interface Learned {
  readonly factors: readonly LearnedFactor[];
  /** Standard deviation of ln from run to run; the usual one until there are enough runs. */
  readonly scatter: number;
}

/**
 * What runs say of values that act together and cannot be told apart by any one of them: each gets its share of the difference by how
 * far it was doubted and how much the run hangs on it. For one value and one run it is
 * d ln K_i = s_i^2 h_i y / (sum s^2 h^2 + sigma^2). The order of the runs does not matter, and one can be left out again.
 * @param values at most some dozens  @param runs those without a share in any of the values tell nothing
 * @param usual standard deviation of ln from run to run, before there are enough of them
 * Source: linear normal theory with conjugate prior; scatter from the residuals with their leverage taken off and the usual scatter as
 * so many runs more. Checked by factors.test.ts.
 */
export function learnFactors(
  values: readonly Unlearned[],
  runs: readonly RunTold[],
  usual = RUN_SCATTER,
): Learned {
  const telling = runs.filter(({ shares }) => values.some(({ id }) => (shares.get(id) ?? 0) !== 0));
  let scatter = usual;
  let solved = solveFor(values, telling, scatter);
  for (let round = 0; telling.length >= ENOUGH_RUNS && round < ROUNDS; round++) {
    scatter = scatterOf(telling, solved, { scatter, usual });
    solved = solveFor(values, telling, scatter);
  }
  return {
    scatter,
    factors: values.map(({ id }, k) => {
      const deviation = Math.sqrt(solved.covariance[k]![k]!);
      return {
        ...{ id, deviation, factor: Math.exp(solved.mean[k]!) },
        ahead: Math.hypot(deviation, scatter),
        runIds: telling.filter(({ shares }) => (shares.get(id) ?? 0) !== 0).map(({ runId }) => runId),
      };
    }),
  };
}

interface Solved {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  readonly rows: readonly (readonly number[])[];
}

function solveFor(values: readonly Unlearned[], runs: readonly RunTold[], scatter: number): Solved {
  const rows = runs.map(({ shares }) => values.map(({ id }) => shares.get(id) ?? 0));
  const weights = runs.map(({ deviation }) => 1 / (deviation ** 2 + scatter ** 2));
  const precision = values.map((a, i) =>
    values.map(
      (_, j) =>
        (i === j ? 1 / a.deviation ** 2 : 0) +
        rows.reduce((sum, row, r) => sum + weights[r]! * row[i]! * row[j]!, 0),
    ),
  );
  const right = values.map((_, i) =>
    rows.reduce((sum, row, r) => sum + weights[r]! * row[i]! * runs[r]!.told, 0),
  );
  const columns = values.map(
    (_, k) =>
      solveSymmetric(
        precision,
        values.map((__, i) => Number(i === k)),
      ).solved,
  );
  return { mean: solveSymmetric(precision, right).solved, covariance: columns, rows };
}

/** What is left of each run, less what its own measuring explains, over as many runs as are free to differ. */
function scatterOf(
  runs: readonly RunTold[],
  { mean, covariance, rows }: Solved,
  { scatter, usual }: { scatter: number; usual: number },
): number {
  let [squares, free] = [ENOUGH_RUNS * usual ** 2, ENOUGH_RUNS];
  runs.forEach(({ told, deviation }, r) => {
    const row = rows[r]!;
    const spread = row.reduce(
      (sum, a, i) => sum + row.reduce((inner, b, j) => inner + a * b * covariance[i]![j]!, 0),
      0,
    );
    const leverage = spread / (deviation ** 2 + scatter ** 2);
    const left = told - row.reduce((sum, share, k) => sum + share * mean[k]!, 0);
    squares += Math.max(0, left ** 2 - deviation ** 2 * (1 - leverage));
    free += 1 - leverage;
  });
  return Math.max(LEAST_SHARE * usual, Math.sqrt(squares / free));
}
