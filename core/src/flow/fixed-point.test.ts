import { describe, expect, test } from '@jest/globals';
import { createFixedPoint } from './fixed-point.ts';

const find = (start: number[], map: (x: Float64Array) => number[], rounds: number) => {
  const x = Float64Array.from(start);
  const point = createFixedPoint(x.length);
  for (let round = 0; round < rounds; round++) point.improve(x, Float64Array.from(map(x)));
  return x;
};

describe('a point that a map leaves where it is', () => {
  test('cos x = x at 0.7390851332 (Abramowitz & Stegun, from memory), in seven rounds', () => {
    expect(find([0], ([x]) => [Math.cos(x!)], 7)[0]).toBeCloseTo(0.7390851332, 8);
  });

  test('a linear map of three unknowns in four rounds, also one that runs away when it is only repeated', () => {
    // x = A x + b has the solution 1, 2, 3; the eigenvalues of A reach -4.
    const A = [
      [-4, 0.5, 0],
      [0.2, 0.9, 0.1],
      [0, 0.3, -1.5],
    ];
    const solution = [1, 2, 3];
    const b = solution.map((x, i) => x - A[i]!.reduce((sum, a, j) => sum + a * solution[j]!, 0));
    const found = find(
      [0, 0, 0],
      (x) => A.map((row, i) => row.reduce((sum, a, j) => sum + a * x[j]!, b[i]!)),
      5,
    );
    solution.forEach((x, i) => expect(found[i]).toBeCloseTo(x, 6));
  });

  test('a point that is found stays', () => {
    expect(Array.from(find([1, 2], (x) => [...x], 3))).toEqual([1, 2]);
  });
});
