import type { Mesh } from '../geometry/mesh.ts';
import { cornersInPlane } from './edge-flips.ts';
import type { FlowNetwork, NetworkBuilder } from './network.ts';
import type { SheetProperties } from './sheet.ts';

/** A feed or vent point smaller than the mesh: its node and its own radius, m. */
export interface Well {
  readonly node: number;
  readonly radius: number;
}

interface Branch {
  readonly node: number;
  readonly conductance: number;
}

/**
 * Joins a well of its own radius to the mesh by the resistance of the radial flow that the mesh is too coarse to show:
 * k = angle T / ln(re / radius), re the radius at which the mesh carries the pressure of the joined nodes. Where the well is
 * wider than one node's re, rings of neighbours are joined too.
 * @param plain network of the sheet the well stands on, its nodes those of the mesh
 * @param offset of those nodes in the builder
 * @returns the well's node in the builder
 * Source: Peaceman 1978 (SPE Journal 18:183), re from this mesh's own conductances. Checked by forecast.test.ts.
 */
export function addWell(
  builder: NetworkBuilder,
  on: { plain: FlowNetwork; mesh: Mesh; sheet: SheetProperties; offset: number },
  well: Well,
): number {
  const index = builder.addNodes([1e-3 * on.plain.storage[well.node]]);
  for (const { node, conductance } of wellBranches(on.plain, on.mesh, on.sheet, well))
    builder.join(index, on.offset + node, conductance);
  return index;
}

function wellBranches(
  network: FlowNetwork,
  mesh: Mesh,
  sheet: SheetProperties,
  { node, radius }: Well,
): Branch[] {
  const { angle, meanFlow } = flowAround(mesh, sheet, node);
  const block = new Set([node]);
  for (;;) {
    const rim = outwardOf(network, mesh, block, node);
    const total = rim.reduce((sum, { conductance }) => sum + conductance, 0);
    const equivalent =
      (rim.reduce((sum, { conductance, logDistance }) => sum + conductance * logDistance, 0) -
        angle * meanFlow) /
      total;
    const resistance = equivalent - Math.log(radius);
    if (resistance > ENOUGH || block.size > LARGEST_BLOCK) {
      const share = (angle * meanFlow) / Math.max(resistance, ENOUGH) / total;
      return rim.map(({ from, conductance }) => ({ node: from, conductance: conductance * share }));
    }
    for (const { neighbours } of rim) for (const j of neighbours) block.add(j);
  }
}

/** Logarithm of re over radius that leaves the branch a resistance of its own. */
const ENOUGH = 0.15;
const LARGEST_BLOCK = 2000;

/** For each node of the block that has neighbours outside it: its conductance to them, and their mean log distance. */
function outwardOf(network: FlowNetwork, { positions }: Mesh, block: Set<number>, centre: number) {
  return [...block].flatMap((from) => {
    const neighbours: number[] = [];
    let [conductance, weighted] = [0, 0];
    for (let e = network.rowStart[from]; e < network.rowStart[from + 1]; e++) {
      const j = network.columns[e];
      if (block.has(j)) continue;
      neighbours.push(j);
      conductance += network.conductance[e];
      const distance = Math.hypot(
        positions[3 * j] - positions[3 * centre],
        positions[3 * j + 1] - positions[3 * centre + 1],
        positions[3 * j + 2] - positions[3 * centre + 2],
      );
      weighted += network.conductance[e] * Math.log(distance);
    }
    return conductance > 0 ? [{ from, neighbours, conductance, logDistance: weighted / conductance }] : [];
  });
}

/** Angle of laminate around a node (less than a full turn on an edge), and the mean transmissibility in it. */
function flowAround({ positions, triangles }: Mesh, sheet: SheetProperties, node: number) {
  let angle = 0;
  let flow = 0;
  const corners = new Float64Array(6);
  for (let t = 0; t < triangles.length / 3; t++) {
    const corner = [0, 1, 2].find((k) => triangles[3 * t + k] === node);
    if (corner === undefined) continue;
    cornersInPlane(positions, triangles, t, corners);
    const towards = (k: number) => {
      const other = (corner + k) % 3;
      return Math.atan2(
        corners[2 * other + 1] - corners[2 * corner + 1],
        corners[2 * other] - corners[2 * corner],
      );
    };
    const own = (towards(2) - towards(1) + 2 * Math.PI) % (2 * Math.PI);
    const [xx, yy, xy] = sheet.transmissibility.subarray(3 * t, 3 * t + 3);
    angle += own;
    flow += own * Math.sqrt(xx * yy - xy * xy);
  }
  return { angle, meanFlow: flow / angle };
}
