import type { Mesh } from '../geometry/mesh.ts';
import type { FlowLayer } from '../laminate/layers.ts';
import { cornersInPlane } from './edge-flips.ts';
import { sheetNetwork, type FlowNetwork, type NetworkBuilder } from './network.ts';
import type { SheetProperties } from './sheet.ts';

/** Thinnest in-plane path a layer may have beside the thickest of its zone. */
const THIN = 1e-6;

/**
 * Adds one sheet of nodes a layer, joined through the thickness over each node's area. Layer l of mesh node i becomes
 * builder node first + l * mesh.nodeCount + i. One layer alone is the averaged laminate.
 * @param laid index into stacks of each triangle; the layers of each zone, bag side first, the same number in each; by which each
 *        triangle takes resin better than its layers say
 * @returns the bag-side sheet, on which lines lie
 * @throws ModelError as sheetNetwork
 * Checked by layers.test.ts.
 */
export function addLayers(
  builder: NetworkBuilder,
  mesh: Mesh,
  laid: {
    readonly zoneOf: ArrayLike<number>;
    readonly stacks: readonly (readonly FlowLayer[])[];
    readonly better?: Float64Array | null;
  },
): { plain: FlowNetwork; sheet: SheetProperties } {
  const { zoneOf, stacks, better } = laid;
  const triangleCount = mesh.triangles.length / 3;
  const layerCount = stacks[0].length;
  let top: { plain: FlowNetwork; sheet: SheetProperties } | null = null;
  for (let l = 0; l < layerCount; l++) {
    const sheet = {
      transmissibility: new Float64Array(3 * triangleCount),
      storage: new Float64Array(triangleCount),
    };
    for (let t = 0; t < triangleCount; t++) {
      const layers = stacks[zoneOf[t]];
      const { transmissibility, storage } = layers[l];
      const least = THIN * Math.max(...layers.map((layer) => layer.transmissibility.xx));
      const by = better?.[t] ?? 1;
      sheet.transmissibility[3 * t] = by * Math.max(transmissibility.xx, least);
      sheet.transmissibility[3 * t + 1] = by * Math.max(transmissibility.yy, least);
      sheet.transmissibility[3 * t + 2] = by * transmissibility.xy;
      sheet.storage[t] = storage;
    }
    const plain = sheetNetwork(mesh, sheet);
    builder.addNetwork(plain);
    top ??= { plain, sheet };
  }
  const corners = new Float64Array(6);
  for (let t = 0; t < triangleCount; t++) {
    const area = cornersInPlane(mesh.positions, mesh.triangles, t, corners);
    for (let l = 0; l + 1 < layerCount; l++)
      for (let k = 0; k < 3; k++) {
        const i = mesh.triangles[3 * t + k];
        builder.join(
          l * mesh.nodeCount + i,
          (l + 1) * mesh.nodeCount + i,
          ((better?.[t] ?? 1) * stacks[zoneOf[t]][l].toNext * area) / 3,
        );
      }
  }
  return top!;
}

/**
 * How far the mould side lags behind the bag side: time between the two fronts, and that time at the speed of the front
 * there, m (NaN where either is dry); both smoothed over neighbouring nodes.
 */
export function lagOf(
  { nodeCount, positions, triangles }: Mesh,
  bagSide: Float64Array,
  mouldSide: Float64Array,
): { time: Float64Array; length: Float64Array } {
  const slowness = new Float64Array(nodeCount);
  const weight = new Float64Array(nodeCount);
  const corners = new Float64Array(6);
  for (let t = 0; t < triangles.length / 3; t++) {
    const area = cornersInPlane(positions, triangles, t, corners);
    const [a, b, c] = [0, 1, 2].map((k) => mouldSide[triangles[3 * t + k]]);
    const [x1, y1, x2, y2] = corners.subarray(2, 6);
    const twice = x1 * y2 - x2 * y1;
    const steep = Math.hypot(((b - a) * y2 - (c - a) * y1) / twice, ((c - a) * x1 - (b - a) * x2) / twice);
    if (Number.isNaN(steep)) continue;
    for (let k = 0; k < 3; k++) {
      slowness[triangles[3 * t + k]] += area * steep;
      weight[triangles[3 * t + k]] += area;
    }
  }
  const raw = mouldSide.map((late, i) => Math.max(0, late - bagSide[i]));
  const rawLength = raw.map((lag, i) => (slowness[i] > 0 ? (lag * weight[i]) / slowness[i] : NaN));
  const smooth = (values: Float64Array) => smoothed(triangles, smoothed(triangles, values));
  return { time: smooth(raw), length: smooth(rawLength) };
}

/** Mean of each node and its neighbours: a lag is a difference of near equal times, whose scatter shows from node to node. */
function smoothed(triangles: Uint32Array, values: Float64Array): Float64Array {
  const sum = values.map((v) => (Number.isNaN(v) ? 0 : v));
  const count = values.map((v) => (Number.isNaN(v) ? 0 : 1));
  const [sums, counts] = [sum.slice(), count.slice()];
  for (let e = 0; e < triangles.length; e++) {
    const [i, j] = [triangles[e], triangles[e - (e % 3) + ((e + 1) % 3)]];
    sums[i] += sum[j];
    counts[i] += count[j];
    sums[j] += sum[i];
    counts[j] += count[i];
  }
  return values.map((v, i) => (Number.isNaN(v) ? NaN : sums[i] / counts[i]));
}
