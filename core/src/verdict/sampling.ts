/** Halton sequence: radical inverse of a positive index in a prime base; lies in (0, 1). Source: Halton 1960. */
export function halton(index: number, base: number): number {
  let result = 0;
  let share = 1 / base;
  for (let i = index; i > 0; i = Math.floor(i / base)) {
    result += share * (i % base);
    share /= base;
  }
  return result;
}

/** Standard normal quantile. Source: rational approximation 26.2.23 of Abramowitz & Stegun, |error| < 4.5e-4. */
export function normalQuantile(probability: number): number {
  const tail = Math.min(probability, 1 - probability);
  const t = Math.sqrt(-2 * Math.log(tail));
  const z =
    t - (2.515517 + t * (0.802853 + t * 0.010328)) / (1 + t * (1.432788 + t * (0.189269 + t * 0.001308)));
  return probability < 0.5 ? -z : z;
}

/** Share of a standard normal below a value. Source: Abramowitz & Stegun 26.2.17, |error| < 7.5e-8. Checked by reforecast/shapes.test.ts. */
export function normalCdf(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}
