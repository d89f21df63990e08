import type { Mesh } from '../geometry/mesh.ts';
import { ModelError, requirePositive } from '../model-error.ts';
import { edgeConductance, flipForPermeability } from './edge-flips.ts';
import type { SheetProperties } from './sheet.ts';

/**
 * What the front solver sees: nodes that store resin, joined by conductances. It knows nothing of meshes, so layers,
 * lines and hoses are further nodes and branches of the same network.
 */
export interface FlowNetwork {
  readonly nodeCount: number;
  /** Compressed rows: the neighbours of node i are columns[rowStart[i] .. rowStart[i + 1]). */
  readonly rowStart: Int32Array;
  readonly columns: Int32Array;
  /** Branch conductance k_ij, m3 (volume flow = k / viscosity * pressure difference); the same both ways. */
  readonly conductance: Float64Array;
  /** Pore volume of each node, m3. */
  readonly storage: Float64Array;
}

/**
 * Linear finite elements on the mesh, storage lumped: the conductance between two nodes is minus the stiffness entry.
 * Edges whose conductance would be negative (too obtuse for the local permeability) are flipped where the outline
 * allows; what stays negative is set to zero, so that the front can only advance (M-matrix).
 * @throws ModelError SHEET_NOT_POSITIVE when a transmissibility is not positive definite or a storage not above zero
 * Source: Baliga & Patankar 1980 (control-volume finite elements). Checked by fill.test.ts.
 */
export function sheetNetwork(mesh: Mesh, sheet: SheetProperties): FlowNetwork {
  requirePermeable(sheet);
  const triangles = flipForPermeability(mesh, sheet);
  const { nodeCount } = mesh;
  const storage = new Float64Array(nodeCount);
  const rows: Map<number, number>[] = Array.from({ length: nodeCount }, () => new Map());
  for (let t = 0; t < triangles.length / 3; t++) {
    requirePositive(sheet.storage[t], 'Storage (porosity x thickness)', 'm');
    const area = triangleArea(mesh.positions, triangles, t);
    for (let k = 0; k < 3; k++) {
      const i = triangles[3 * t + k];
      const j = triangles[3 * t + ((k + 1) % 3)];
      storage[i] += (sheet.storage[t] * area) / 3;
      const value = edgeConductance(
        mesh.positions,
        i,
        j,
        triangles[3 * t + ((k + 2) % 3)],
        sheet.transmissibility,
        t,
      );
      rows[i].set(j, (rows[i].get(j) ?? 0) + value);
      rows[j].set(i, (rows[j].get(i) ?? 0) + value);
    }
  }
  return networkFromRows(rows, storage);
}

function networkFromRows(rows: readonly Map<number, number>[], storage: Float64Array): FlowNetwork {
  const rowStart = new Int32Array(rows.length + 1);
  rows.forEach((row, i) => (rowStart[i + 1] = rowStart[i] + row.size));
  const columns = new Int32Array(rowStart[rows.length]);
  const conductance = new Float64Array(rowStart[rows.length]);
  rows.forEach((row, i) => {
    let at = rowStart[i];
    for (const j of [...row.keys()].sort((p, q) => p - q)) {
      columns[at] = j;
      conductance[at] = Math.max(0, row.get(j)!);
      at += 1;
    }
  });
  return { nodeCount: rows.length, rowStart, columns, conductance, storage };
}

function triangleArea(positions: Float64Array, triangles: Uint32Array, t: number): number {
  const [a, b, c] = [3 * triangles[3 * t], 3 * triangles[3 * t + 1], 3 * triangles[3 * t + 2]];
  return (
    ((positions[b] - positions[a]) * (positions[c + 1] - positions[a + 1]) -
      (positions[b + 1] - positions[a + 1]) * (positions[c] - positions[a])) /
    2
  );
}

function requirePermeable({ transmissibility }: SheetProperties) {
  for (let t = 0; t < transmissibility.length; t += 3) {
    const [xx, yy, xy] = [transmissibility[t], transmissibility[t + 1], transmissibility[t + 2]];
    if (!(xx > 0 && xx < Infinity && xx * yy > xy * xy && yy < Infinity))
      throw new ModelError(
        'SHEET_NOT_POSITIVE',
        'The laminate has no permeability somewhere, so resin cannot enter it. Check the permeability of its materials.',
        { triangle: t / 3 },
      );
  }
}
