/**
 * Laminate that opens up as resin pressure takes the load off it: pores and permeability against resin pressure, each
 * relative to its value at the run's vacuum. Evenly spaced from 0.
 */
export interface SoftCurve {
  /** Pa between entries. */
  readonly spacing: number;
  /** Rising, first 1. */
  readonly pores: Float64Array;
  readonly flow: Float64Array;
}

export interface Softness {
  readonly curves: readonly SoftCurve[];
  /** Curve of each node; -1 where nothing yields (lines, mesh). */
  readonly curveOf: Int32Array;
}

/** Value of a table at a pressure, straight between entries, constant past its ends. */
export function readCurve(values: Float64Array, spacing: number, pressure: number): number {
  const at = Math.min(values.length - 1, Math.max(0, pressure / spacing));
  const n = Math.min(values.length - 2, Math.floor(at));
  return values[n] + (at - n) * (values[n + 1] - values[n]);
}

/** Relative growth of the pores for a unit of pressure, 1/Pa. */
export function poreSlope({ pores, spacing }: SoftCurve, pressure: number): number {
  const n = Math.min(pores.length - 2, Math.max(0, Math.floor(pressure / spacing)));
  return (pores[n + 1] - pores[n]) / spacing;
}

/** Pressure at which the pores have a relative size; inverse of the pore curve, carried on straight at both ends. */
export function pressureForPores({ pores, spacing }: SoftCurve, size: number): number {
  let [low, high] = [0, pores.length - 2];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (pores[middle] <= size) low = middle;
    else high = middle - 1;
  }
  return spacing * (low + (size - pores[low]) / (pores[low + 1] - pores[low]));
}
