/**
 * Solves a small symmetric positive definite system by its Cholesky factor.
 * @param matrix n rows of n  @param right n
 * @returns the solution, and ln of the determinant
 * Source: Golub & Van Loan, Matrix Computations. Checked by factor.test.ts.
 */
export function solveSymmetric(
  matrix: readonly (readonly number[])[],
  right: readonly number[],
): { solved: number[]; logDeterminant: number } {
  const n = right.length;
  const lower = matrix.map((row) => row.map(() => 0));
  let logDeterminant = 0;
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let rest = matrix[i]![j]!;
      for (let k = 0; k < j; k++) rest -= lower[i]![k]! * lower[j]![k]!;
      if (i === j) {
        lower[i]![i] = Math.sqrt(rest);
        logDeterminant += Math.log(rest);
      } else lower[i]![j] = rest / lower[j]![j]!;
    }
  const solved = [...right];
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) solved[i]! -= lower[i]![k]! * solved[k]!;
    solved[i]! /= lower[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) solved[i]! -= lower[k]![i]! * solved[k]!;
    solved[i]! /= lower[i]![i]!;
  }
  return { solved, logDeterminant };
}

/** ln of the sum of what these are ln of. */
export function logSum(logs: readonly number[]): number {
  const most = Math.max(...logs);
  return most === -Infinity
    ? most
    : most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0));
}
