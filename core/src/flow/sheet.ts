/** Laminate averaged through its thickness, one value a triangle. */
export interface SheetProperties {
  /** Transmissibility tensor (permeability x thickness), stride 3: xx, yy, xy in the plan; m3. */
  readonly transmissibility: Float64Array;
  /** Storage: porosity x thickness; m. */
  readonly storage: Float64Array;
}

/** The same transmissibility and storage on every triangle. */
export function uniformSheet(
  triangleCount: number,
  sheet: { xx: number; yy: number; xy: number; storage: number },
): SheetProperties {
  const transmissibility = new Float64Array(3 * triangleCount);
  for (let t = 0; t < triangleCount; t++) transmissibility.set([sheet.xx, sheet.yy, sheet.xy], 3 * t);
  return { transmissibility, storage: new Float64Array(triangleCount).fill(sheet.storage) };
}
