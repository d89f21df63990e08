import type { Mesh } from '../geometry/mesh.ts';

/** Laminate averaged through its thickness, one value a triangle. */
export interface SheetProperties {
  /** Transmissibility tensor (permeability x thickness), stride 3: xx, yy, xy in the plan; m3. */
  readonly transmissibility: Float64Array;
  /** Storage: porosity x thickness; m. */
  readonly storage: Float64Array;
}

/** The same transmissibility and storage on every triangle. */
export function uniformSheet(
  mesh: Mesh,
  sheet: { xx: number; yy: number; xy: number; storage: number },
): SheetProperties {
  const count = mesh.triangles.length / 3;
  const transmissibility = new Float64Array(3 * count);
  for (let t = 0; t < count; t++) transmissibility.set([sheet.xx, sheet.yy, sheet.xy], 3 * t);
  return { transmissibility, storage: new Float64Array(count).fill(sheet.storage) };
}
