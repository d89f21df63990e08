/** Differences that are looked back on. */
const MEMORY = 5;
/** Share of a difference's own square added to it, so that differences that are all alike stay solvable. */
const RIDGE = 1e-10;

export interface FixedPoint {
  /** Forgets what came before. */
  start(): void;
  /** Moves x, for which the map gave y, in place to a better guess of the point that the map leaves where it is. */
  improve(x: Float64Array, y: Float64Array): void;
}

/**
 * Finds x = g(x) from values of g alone, by the combination of past steps whose residual is least.
 * Source: Anderson 1965 (J. ACM 12:547). Checked by fixed-point.test.ts.
 */
export function createFixedPoint(size: number): FixedPoint {
  let residuals: Float64Array[] = [];
  let images: Float64Array[] = [];
  let last: { residual: Float64Array; image: Float64Array } | null = null;

  return {
    start() {
      residuals = [];
      images = [];
      last = null;
    },
    improve(x, y) {
      const residual = y.map((value, i) => value - x[i]);
      if (last) {
        residuals = [...residuals, minus(residual, last.residual)].slice(-MEMORY);
        images = [...images, minus(y, last.image)].slice(-MEMORY);
      }
      last = { residual, image: y.slice() };
      const count = residuals.length;
      const matrix = residuals.map((a, r) => residuals.map((b, c) => dot(a, b) * (r === c ? 1 + RIDGE : 1)));
      const shares = solve(
        matrix,
        residuals.map((a) => dot(a, residual)),
      );
      for (let i = 0; i < size; i++) {
        x[i] = y[i];
        for (let k = 0; k < count; k++) x[i] -= shares[k] * images[k][i];
      }
    },
  };
}

const minus = (a: Float64Array, b: Float64Array) => a.map((value, i) => value - b[i]);

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** Elimination with the largest pivot; what hangs on a pivot of zero is left at zero. */
function solve(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]]);
  const n = rows.length;
  for (let c = 0; c < n; c++) {
    const pivot = rows.reduce(
      (best, row, r) => (r >= c && Math.abs(row[c]) > Math.abs(rows[best][c]) ? r : best),
      c,
    );
    [rows[c], rows[pivot]] = [rows[pivot], rows[c]];
    if (rows[c][c] === 0) continue;
    for (let r = c + 1; r < n; r++) {
      const by = rows[r][c] / rows[c][c];
      for (let k = c; k <= n; k++) rows[r][k] -= by * rows[c][k];
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let r = n - 1; r >= 0; r--) {
    const rest = rows[r].slice(r + 1, n).reduce((sum, value, k) => sum + value * out[r + 1 + k], 0);
    out[r] = rows[r][r] === 0 ? 0 : (rows[r][n] - rest) / rows[r][r];
  }
  return out;
}
