import type { Mesh } from '../geometry/mesh.ts';
import { ModelError, requirePositive } from '../model-error.ts';
import { cornersInPlane, edgeConductance, flipForPermeability } from './edge-flips.ts';
import type { SheetProperties } from './sheet.ts';

/**
 * What the front solver sees: nodes that store resin, joined by conductances. It knows nothing of meshes, so layers,
 * lines and hoses are further nodes and branches of the same network.
 */
export interface FlowNetwork {
  readonly nodeCount: number;
  /** Compressed rows: the neighbours of node i are columns[rowStart[i] .. rowStart[i + 1]), ascending. */
  readonly rowStart: Int32Array;
  readonly columns: Int32Array;
  /** Branch conductance k_ij, m3 (volume flow = k / viscosity * pressure difference); the same both ways. */
  readonly conductance: Float64Array;
  /** Pore volume of each node, m3. */
  readonly storage: Float64Array;
  /** Nodes on edges, and between laminates that store differently; none when left out. */
  readonly seams?: readonly Seam[];
}

/** A node and the triangles round it. */
export interface Seam {
  readonly node: number;
  /** Its neighbours in each triangle, stride 2; area, m2, and storage, m, of each. */
  readonly neighbours: Int32Array;
  readonly area: Float64Array;
  readonly storage: Float64Array;
}

/** Collects nodes and branches, then packs them. Branches given twice add up. */
export interface NetworkBuilder {
  /** Appends nodes with these pore volumes, m3. @returns index of the first */
  addNodes(storage: ArrayLike<number>): number;
  /** Adds pore volume to a node, m3. */
  addStorage(node: number, volume: number): void;
  /** Joins two nodes both ways, m3. Sums below zero are packed as zero: the front can only advance (M-matrix). */
  join(i: number, j: number, conductance: number): void;
  /** Appends a whole network. @returns offset of its nodes */
  addNetwork(network: FlowNetwork): number;
  /** Pore volume of all nodes so far, m3. */
  volume(): number;
  build(): FlowNetwork;
}

export function createNetworkBuilder(): NetworkBuilder {
  const storage: number[] = [];
  const from: number[] = [];
  const to: number[] = [];
  const value: number[] = [];
  const seams: Seam[] = [];
  const push = (i: number, j: number, k: number) => {
    from.push(i);
    to.push(j);
    value.push(k);
  };
  const addNodes = (volumes: ArrayLike<number>) => {
    const first = storage.length;
    for (let i = 0; i < volumes.length; i++) storage.push(volumes[i]);
    return first;
  };
  return {
    addNodes,
    addStorage: (node, volume) => (storage[node] += volume),
    join(i, j, k) {
      push(i, j, k);
      push(j, i, k);
    },
    addNetwork({ nodeCount, rowStart, columns, conductance, storage: volumes, seams: added = [] }) {
      const offset = addNodes(volumes);
      for (const seam of added)
        seams.push({
          ...seam,
          node: offset + seam.node,
          neighbours: seam.neighbours.map((j) => offset + j),
        });
      for (let i = 0; i < nodeCount; i++)
        for (let e = rowStart[i]; e < rowStart[i + 1]; e++)
          push(offset + i, offset + columns[e], conductance[e]);
      return offset;
    },
    volume: () => storage.reduce((sum, v) => sum + v, 0),
    build: () => ({ ...pack(Float64Array.from(storage), from, to, value), seams }),
  };
}

function pack(
  storage: Float64Array,
  from: readonly number[],
  to: readonly number[],
  value: readonly number[],
): FlowNetwork {
  const nodeCount = storage.length;
  const byColumn = sortBy(to, nodeCount, null);
  const order = sortBy(from, nodeCount, byColumn);
  const rowStart = new Int32Array(nodeCount + 1);
  const columns = new Int32Array(order.length);
  const conductance = new Float64Array(order.length);
  let top = 0;
  let row = 0;
  for (const n of order) {
    while (row < from[n]) rowStart[++row] = top;
    if (top > rowStart[row] && columns[top - 1] === to[n]) conductance[top - 1] += value[n];
    else {
      columns[top] = to[n];
      conductance[top++] = value[n];
    }
  }
  while (row < nodeCount) rowStart[++row] = top;
  for (let e = 0; e < top; e++) conductance[e] = Math.max(0, conductance[e]);
  return {
    nodeCount,
    rowStart,
    columns: columns.slice(0, top),
    conductance: conductance.slice(0, top),
    storage,
  };
}

/** Stable counting sort of the positions 0.. by key, starting from a given order. */
function sortBy(keys: readonly number[], keyCount: number, order: Int32Array | null): Int32Array {
  const start = new Int32Array(keyCount + 1);
  for (const key of keys) start[key + 1] += 1;
  for (let i = 0; i < keyCount; i++) start[i + 1] += start[i];
  const sorted = new Int32Array(keys.length);
  for (let n = 0; n < keys.length; n++) {
    const position = order ? order[n] : n;
    sorted[start[keys[position]]++] = position;
  }
  return sorted;
}

/**
 * Linear finite elements on the mesh, storage lumped: the conductance between two nodes is minus the stiffness entry.
 * Edges whose conductance would be negative (too obtuse for the local permeability) are flipped where the outline
 * allows; what stays negative is set to zero, so that the front can only advance (M-matrix).
 * @throws ModelError SHEET_NOT_POSITIVE when a transmissibility is not positive definite or a storage not above zero
 * Source: Baliga & Patankar 1980 (control-volume finite elements). Checked by fill.test.ts and shell.test.ts.
 */
export function sheetNetwork(mesh: Mesh, sheet: SheetProperties): FlowNetwork {
  requirePermeable(sheet);
  const triangles = flipForPermeability(mesh, sheet);
  const builder = createNetworkBuilder();
  builder.addNodes(new Float64Array(mesh.nodeCount));
  const corners = new Float64Array(6);
  for (let t = 0; t < triangles.length / 3; t++) {
    requirePositive(sheet.storage[t], 'Storage (porosity x thickness)', 'm');
    const area = cornersInPlane(mesh.positions, triangles, t, corners);
    for (let k = 0; k < 3; k++) {
      const next = (k + 1) % 3;
      builder.addStorage(triangles[3 * t + k], (sheet.storage[t] * area) / 3);
      builder.join(
        triangles[3 * t + k],
        triangles[3 * t + next],
        edgeConductance(corners, k, next, (k + 2) % 3, sheet.transmissibility, t),
      );
    }
  }
  return { ...builder.build(), seams: seamsOf(mesh, triangles, sheet.storage) };
}

function seamsOf({ positions, nodeCount }: Mesh, triangles: Uint32Array, storage: Float64Array): Seam[] {
  const isOnEdge = edgeNodes(triangles, nodeCount);
  const least = new Float64Array(nodeCount).fill(Infinity);
  const most = new Float64Array(nodeCount);
  triangles.forEach((i, e) => {
    const own = storage[Math.floor(e / 3)];
    least[i] = Math.min(least[i], own);
    most[i] = Math.max(most[i], own);
  });
  const around = new Map<number, number[]>();
  triangles.forEach((i, e) => {
    if (isOnEdge[i] || most[i] > least[i]) around.set(i, [...(around.get(i) ?? []), e]);
  });
  const corners = new Float64Array(6);
  return Array.from(around, ([node, entries]) => ({
    node,
    neighbours: Int32Array.from(
      entries.flatMap((e) => [1, 2].map((step) => triangles[e - (e % 3) + ((e + step) % 3)])),
    ),
    area: Float64Array.from(entries, (e) => cornersInPlane(positions, triangles, Math.floor(e / 3), corners)),
    storage: Float64Array.from(entries, (e) => storage[Math.floor(e / 3)]),
  }));
}

/** 1 for nodes of sides that only one triangle has. */
function edgeNodes(triangles: Uint32Array, nodeCount: number): Uint8Array {
  const sides = new Map<number, number>();
  triangles.forEach((i, e) => {
    const j = triangles[e - (e % 3) + ((e + 1) % 3)];
    const key = Math.min(i, j) * nodeCount + Math.max(i, j);
    sides.set(key, (sides.get(key) ?? 0) + 1);
  });
  const isOnEdge = new Uint8Array(nodeCount);
  for (const [key, count] of sides)
    if (count === 1) isOnEdge[Math.floor(key / nodeCount)] = isOnEdge[key % nodeCount] = 1;
  return isOnEdge;
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
