import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix, CholeskyDecomposition, determinant } from 'ml-matrix';
import { createRandom, normalOf } from '../random.ts';
import { byPrecision, DOUBTFUL, factorOf } from './factor.ts';
import { alike, deviationOf, LOCAL_SCATTER, shared, type MarkSeen } from './marks.ts';
import { logSum, solveSymmetric } from './small-algebra.ts';

/** x/÷1.4, beyond which one in ten lies on either side. */
const PRIOR = Math.log(1.4) / 1.2816;
/** So far apart on the way that nothing local is shared. */
const apart = (values: readonly number[], deviation: number): MarkSeen[] =>
  values.map((y, j) => ({ model: 1000 ** j, seen: 1000 ** j / Math.exp(y), deviation }));

describe('one mark', () => {
  // The front came at 28 min where it was forecast for 20, half a metre on; read to 10 mm and half a minute.
  const deviation = deviationOf({ slope: 2 / 0.5, place: 0.01, timeShare: 0.5 / 28 });
  const mark = { model: 20, seen: 28, deviation };

  test('its deviation by hand: 0.1, 0.04 and 0.0179 in quadrature', () => {
    expect(deviation).toBeCloseTo(Math.sqrt(0.01 + 0.0016 + (0.5 / 28) ** 2), 12);
    expect(deviation).toBeCloseTo(0.1092, 4);
  });

  test('the factor by precision: 0.751 within 0.101, and a last corner at 60 min goes to 79.9 min', () => {
    // By hand: weights 1/0.2626^2 = 14.5 and 1/0.1092^2 = 83.9; ln(20/28) * 83.9 / 98.4 = -0.287.
    const { mean, deviation: left } = byPrecision([mark], PRIOR);
    expect(PRIOR).toBeCloseTo(0.2626, 3);
    expect(Math.exp(mean)).toBeCloseTo(0.751, 3);
    expect(left).toBeCloseTo(0.101, 3);
    expect(60 / Math.exp(mean)).toBeCloseTo(79.9, 0);
    expect(Math.exp(1.2816 * Math.hypot(left, LOCAL_SCATTER))).toBeCloseTo(1.2, 2);
  });

  test('with the chance that it is wild it is believed a little less, and its evidence is that of both ways', () => {
    const { mean, deviation: left, belief, evidence } = factorOf([mark], PRIOR);
    const plain = byPrecision([mark], PRIOR);
    expect(Math.abs(mean)).toBeLessThan(Math.abs(plain.mean));
    expect(left).toBeGreaterThan(plain.deviation);
    expect(belief[0]).toBeGreaterThan(0.9);
    // Both marginals are normal: N(y; 0, prior^2 + sigma^2); a wild mark pulls by prior^2 / (prior^2 + 1).
    const normal = (y: number, v: number) => Math.exp((-0.5 * y * y) / v) / Math.sqrt(2 * Math.PI * v);
    const y = Math.log(20 / 28);
    const both = 0.95 * normal(y, PRIOR ** 2 + deviation ** 2) + 0.05 * normal(y, PRIOR ** 2 + 1);
    expect(evidence).toBeCloseTo(Math.log(both), 9);
    const wild = (0.05 * normal(y, PRIOR ** 2 + 1)) / both;
    const pulled = (y * PRIOR ** 2) / (PRIOR ** 2 + 1);
    expect(mean).toBeCloseTo((1 - wild) * plain.mean + wild * pulled, 9);
  });

  test('no mark leaves what was thought before', () => {
    expect(factorOf([], PRIOR)).toEqual({ mean: 0, deviation: PRIOR, belief: [], evidence: 0 });
  });
});

test('one wrong mark of four: the mean of all says -0.050, the one by company -0.273, and it is flagged', () => {
  const marks = apart([-0.3, -0.33, 0.7, -0.28], 0.11);
  // By hand: sum -0.21 / 0.11^2 over 4 / 0.11^2 + 14.5.
  expect(byPrecision(marks, PRIOR).mean).toBeCloseTo(-0.05, 2);
  const { mean, belief } = factorOf(marks, PRIOR);
  expect(mean).toBeCloseTo(-0.273, 2);
  expect(belief[2]).toBeLessThan(DOUBTFUL);
  expect(belief.filter((w) => w < DOUBTFUL)).toHaveLength(1);
});

test('marks close to each other on the way share what is local, and tell less than ones apart', () => {
  const near = [1, 1.1, 1.2].map((model) => ({ model, seen: model / 0.8, deviation: 0.11 }));
  const far = [1, 10, 100].map((model) => ({ model, seen: model / 0.8, deviation: 0.11 }));
  expect(factorOf(near, PRIOR).deviation).toBeGreaterThan(1.3 * factorOf(far, PRIOR).deviation);
  expect(shared(near[0]!, near[0]!)).toBeCloseTo(LOCAL_SCATTER ** 2, 12);
  // Over 0.7 of ln of time it fades to 1/e.
  expect(shared(near[0]!, { ...near[0]!, model: Math.exp(0.7) })).toBeCloseTo(
    LOCAL_SCATTER ** 2 / Math.E,
    12,
  );
});

/** What is local fades along the way, and each reading is off by itself. */
function scattered(times: readonly number[], random: () => number): number[] {
  let local = 0;
  return times.map((time, j) => {
    const kept = j === 0 ? 0 : alike(time, times[j - 1]!);
    local = kept * local + LOCAL_SCATTER * Math.sqrt(1 - kept ** 2) * normalOf(random);
    return local + Math.sqrt(0.11 ** 2 - LOCAL_SCATTER ** 2) * normalOf(random);
  });
}

test('one wrong mark among six, whichever and however wrong, moves the answer by less than a tenth', () => {
  const random = createRandom(11);
  for (let run = 0; run < 600; run++) {
    const truth = PRIOR * normalOf(random);
    const times = [1, 2, 4, 6, 9, 12];
    const off = scattered(times, random);
    const marks = times.map((model, j) => ({
      model,
      seen: model / Math.exp(truth + off[j]!),
      deviation: 0.11,
    }));
    const wrong = run % 6;
    const by = Math.exp((random() < 0.5 ? -1 : 1) * (0.3 + 1.5 * random()));
    const spoilt = marks.map((mark, j) => (j === wrong ? { ...mark, seen: mark.seen * by } : mark));
    const without = factorOf(
      marks.filter((_, j) => j !== wrong),
      PRIOR,
    );
    const moved = Math.exp(factorOf(spoilt, PRIOR).mean - without.mean);
    expect(moved).toBeGreaterThan(0.9);
    expect(moved).toBeLessThan(1.1);
  }
});

test('over many drawn parts the range holds the factor eight times in ten', () => {
  const random = createRandom(5);
  let inside = 0;
  const RUNS = 2000;
  for (let run = 0; run < RUNS; run++) {
    const truth = PRIOR * normalOf(random);
    const marks = apart(
      [0, 1, 2].map(() => truth + 0.11 * normalOf(random)),
      0.11,
    );
    const { mean, deviation } = factorOf(marks, PRIOR);
    if (Math.abs(truth - mean) < 1.2816 * deviation) inside += 1;
  }
  // Binomial: 0.8 +- 3 standard deviations of 0.9 %, and Student's t asks for a little room.
  expect(inside / RUNS).toBeGreaterThan(0.76);
  expect(inside / RUNS).toBeLessThan(0.86);
});

test('the small algebra agrees with a library', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 6 }), fc.integer(), (n, seed) => {
      const random = createRandom(seed);
      const rows = Array.from({ length: n }, () => Array.from({ length: n }, () => random() - 0.5));
      const matrix = Matrix.mul(new Matrix(rows), 1).mmul(new Matrix(rows).transpose()).add(Matrix.eye(n, n));
      const right = Array.from({ length: n }, () => random());
      const { solved, logDeterminant } = solveSymmetric(matrix.to2DArray(), right);
      const outside = new CholeskyDecomposition(matrix).solve(Matrix.columnVector(right)).to1DArray();
      solved.forEach((value, i) => expect(value).toBeCloseTo(outside[i]!, 9));
      expect(logDeterminant).toBeCloseTo(Math.log(determinant(matrix)), 8);
    }),
  );
  expect(logSum([Math.log(2), Math.log(3)])).toBeCloseTo(Math.log(5), 12);
  expect(logSum([-Infinity, -Infinity])).toBe(-Infinity);
});
