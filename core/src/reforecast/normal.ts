/** Share of a standard normal below a value. Source: Abramowitz & Stegun 26.2.17, |error| < 7.5e-8. Checked by shapes.test.ts. */
export function normalCdf(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}
