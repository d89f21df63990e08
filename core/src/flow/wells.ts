import type { Mesh } from '../geometry/mesh.ts';
import type { FlowNetwork, SheetProperties } from './network.ts';

/** A feed or vent point smaller than the mesh: its node and its own radius, m. */
export interface Well {
  readonly node: number;
  readonly radius: number;
}

/**
 * Appends a node for each well, joined to its mesh node by the resistance of the radial flow that the mesh is too coarse
 * to show: k = angle T / ln(re / radius), re the radius at which the mesh carries the pressure of its node.
 * @returns the network with wells.length more nodes, in order; a well wider than re joins almost freely
 * Source: Peaceman 1978 (SPE Journal 18:183), re from this mesh's own conductances. Checked by fill.test.ts.
 */
export function addWells(
  network: FlowNetwork,
  mesh: Mesh,
  sheet: SheetProperties,
  wells: readonly Well[],
): FlowNetwork {
  const { nodeCount } = network;
  const branches = wells.map((well) => ({
    node: well.node,
    conductance: wellConductance(network, mesh, sheet, well),
  }));
  const extra = (i: number) =>
    branches.flatMap((branch, w) =>
      branch.node === i ? [{ column: nodeCount + w, value: branch.conductance }] : [],
    );
  const rowStart = [0];
  const columns: number[] = [];
  const values: number[] = [];
  for (let i = 0; i < nodeCount; i++) {
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++) {
      columns.push(network.columns[e]);
      values.push(network.conductance[e]);
    }
    for (const { column, value } of extra(i)) {
      columns.push(column);
      values.push(value);
    }
    rowStart.push(columns.length);
  }
  for (const branch of branches) {
    columns.push(branch.node);
    values.push(branch.conductance);
    rowStart.push(columns.length);
  }
  const storage = new Float64Array(nodeCount + wells.length);
  storage.set(network.storage);
  wells.forEach(({ node }, w) => (storage[nodeCount + w] = 1e-3 * network.storage[node]));
  return {
    nodeCount: nodeCount + wells.length,
    rowStart: Int32Array.from(rowStart),
    columns: Int32Array.from(columns),
    conductance: Float64Array.from(values),
    storage,
  };
}

function wellConductance(
  network: FlowNetwork,
  { positions, triangles }: Mesh,
  sheet: SheetProperties,
  { node, radius }: Well,
): number {
  let angle = 0;
  let sheetFlow = 0;
  for (let t = 0; t < triangles.length / 3; t++) {
    const corner = [0, 1, 2].find((k) => triangles[3 * t + k] === node);
    if (corner === undefined) continue;
    const [b, c] = [3 * triangles[3 * t + ((corner + 1) % 3)], 3 * triangles[3 * t + ((corner + 2) % 3)]];
    const toB = Math.atan2(positions[b + 1] - positions[3 * node + 1], positions[b] - positions[3 * node]);
    const toC = Math.atan2(positions[c + 1] - positions[3 * node + 1], positions[c] - positions[3 * node]);
    const own = (toC - toB + 2 * Math.PI) % (2 * Math.PI);
    const [xx, yy, xy] = sheet.transmissibility.subarray(3 * t, 3 * t + 3);
    angle += own;
    sheetFlow += own * Math.sqrt(xx * yy - xy * xy);
  }
  const meanFlow = sheetFlow / angle;
  let [weighted, sum] = [0, 0];
  for (let e = network.rowStart[node]; e < network.rowStart[node + 1]; e++) {
    const j = network.columns[e];
    const distance = Math.hypot(
      positions[3 * j] - positions[3 * node],
      positions[3 * j + 1] - positions[3 * node + 1],
    );
    weighted += network.conductance[e] * Math.log(distance);
    sum += network.conductance[e];
  }
  const equivalent = (weighted - angle * meanFlow) / sum;
  return sheetFlow / Math.max(equivalent - Math.log(radius), 0.05);
}
