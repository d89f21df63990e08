import { pressureAfter, readingSd, type GaugeErrors, type Rise, type RiseReadings } from './rise.ts';

export type RiseKind = 'flat' | 'leak' | 'moisture' | 'both';

export interface RiseFit {
  readonly kind: RiseKind;
  readonly rise: Rise;
  /** Sum of squared differences over the variance of a reading. */
  readonly chiSquare: number;
  readonly score: number;
}

/** Time constants tried, s; between the best two it is refined. */
const [SHORTEST, LONGEST, TRIED] = [20, 7200, 40];
const PARAMETERS: Readonly<Record<RiseKind, number>> = { flat: 1, leak: 2, moisture: 3, both: 4 };

/**
 * The four ways in which a shut bag can behave, each by least squares with slope and moisture >= 0, best first by AICc for a known
 * variance: chi2 + 2k + 2k(k + 1)/(n - k - 1).
 * @param readings n >= 2, times increasing
 * Source: Burnham & Anderson, Model Selection (from memory). Checked by rise-fit.test.ts.
 */
export function fitRise(readings: RiseReadings, gauge: GaugeErrors): RiseFit[] {
  const count = readings.times.length;
  const variance = readingSd(gauge) ** 2;
  const made = (kind: RiseKind, { rise, squares }: Solved): RiseFit => {
    const [k, chiSquare] = [PARAMETERS[kind], squares / variance];
    return {
      kind,
      rise,
      chiSquare,
      score: chiSquare + 2 * k + (2 * k * (k + 1)) / Math.max(count - k - 1, 0.1),
    };
  };
  return [
    made('flat', solve(readings, [])),
    made('leak', solve(readings, ['slope'])),
    made('moisture', overSettling(readings, ['moisture'])),
    made('both', overSettling(readings, ['slope', 'moisture'])),
  ].sort((a, b) => a.score - b.score);
}

interface Solved {
  readonly rise: Rise;
  readonly squares: number;
}
type Term = 'slope' | 'moisture';

/** Best time constant: of those tried, then by golden section between its neighbours. */
function overSettling(readings: RiseReadings, terms: readonly Term[]): Solved {
  const at = (log: number) => solve(readings, terms, Math.exp(log));
  const step = Math.log(LONGEST / SHORTEST) / (TRIED - 1);
  let best = Math.log(SHORTEST);
  for (let i = 1; i < TRIED; i++) {
    const log = Math.log(SHORTEST) + i * step;
    if (at(log).squares < at(best).squares) best = log;
  }
  let [low, high] = [best - step, best + step];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let n = 0; n < 20; n++) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)];
    if (at(a).squares < at(b).squares) high = b;
    else low = a;
  }
  return at((low + high) / 2);
}

/** Least squares of start and the terms asked for; a term that comes out below 0 is left out. */
function solve(readings: RiseReadings, terms: readonly Term[], settling = LONGEST): Solved {
  const { times, pressures } = readings;
  const shape = { slope: (t: number) => t, moisture: (t: number) => -Math.expm1(-t / settling) };
  const means = terms.map((term) => meanOf(times, shape[term]));
  const mean = meanOf(pressures, (p) => p);
  const normal = terms.map(() => [0, 0]);
  const right = terms.map(() => 0);
  for (let i = 0; i < times.length; i++)
    terms.forEach((term, a) => {
      const own = shape[term](times[i]) - means[a];
      terms.forEach((other, b) => (normal[a][b] += own * (shape[other](times[i]) - means[b])));
      right[a] += own * (pressures[i] - mean);
    });
  const found = terms.length === 2 ? pair(normal, right) : terms.map((_, a) => right[a] / normal[a][a]);
  if (found.some((amount) => !(amount >= 0))) {
    if (terms.length < 2) return solve(readings, [], settling);
    return terms
      .map((term) => solve(readings, [term], settling))
      .reduce((a, b) => (b.squares < a.squares ? b : a));
  }
  const value = (term: Term) => (terms.includes(term) ? found[terms.indexOf(term)] : 0);
  const rise: Rise = {
    start: mean - terms.reduce((sum, _, a) => sum + found[a] * means[a], 0),
    slope: value('slope'),
    moisture: value('moisture'),
    settling,
  };
  let squares = 0;
  for (let i = 0; i < times.length; i++) squares += (pressures[i] - pressureAfter(rise, times[i])) ** 2;
  return { rise, squares };
}

function meanOf(values: ArrayLike<number>, shape: (value: number) => number): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += shape(values[i]);
  return sum / values.length;
}

function pair([[a, b], [c, d]]: number[][], [e, f]: number[]): number[] {
  const determinant = a * d - b * c;
  return [(e * d - b * f) / determinant, (a * f - e * c) / determinant];
}
