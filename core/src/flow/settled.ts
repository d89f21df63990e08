import type { Mesh } from '../geometry/mesh.ts';
import type { FillResult } from './fill-types.ts';
import type { ForecastRequest } from './layout.ts';
import { readCurve, type SoftCurve, type Softness } from './softness.ts';

/** State of a soft laminate when the run has settled, a mesh node on the mould side. */
export interface SettledLaminate {
  readonly time: number;
  /** m, fraction, Pa absolute. */
  readonly thickness: Float64Array;
  readonly fraction: Float64Array;
  readonly pressure: Float64Array;
}

/** How each network node gives way; undefined where the laminate is taken as stiff. */
export function softnessOf(
  { zones }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  nodeCount: number,
): Softness | undefined {
  if (!zones.some((zone) => zone.soft)) return undefined;
  const layerCount = zones[0].layers.length;
  const curves: SoftCurve[] = [];
  const curveOfZone = zones.map(({ soft }) =>
    soft
      ? curves.push(
          layerCount === 1
            ? { spacing: soft.spacing, pores: soft.stackPores, flow: soft.stackFlow }
            : { spacing: soft.spacing, pores: soft.plyPores, flow: soft.plyFlow },
        ) - 1
      : -1,
  );
  const curveOf = new Int32Array(nodeCount).fill(-1);
  for (let i = 0; i < layerCount * mesh.nodeCount; i++) {
    const zone = zoneOfNode[i];
    const layer = zones[zone].layers[Math.floor(i / mesh.nodeCount)];
    if (layer.isSoft || layerCount === 1) curveOf[i] = curveOfZone[zone];
  }
  return { curves, curveOf };
}

/** Thickness and fibre fraction that go with the pores at the end, on the mould side. */
export function finalOf(
  { zones, vacuumPressure }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  { final }: FillResult,
): SettledLaminate | null {
  if (!zones.some((zone) => zone.soft)) return null;
  const offset = (zones[0].layers.length - 1) * mesh.nodeCount;
  const [thickness, fraction] = [new Float64Array(mesh.nodeCount), new Float64Array(mesh.nodeCount)];
  for (let i = 0; i < mesh.nodeCount; i++) {
    const { soft } = zones[zoneOfNode[i]];
    const isWet = final.level[offset + i] >= 1;
    thickness[i] = soft && isWet ? readCurve(soft.thickness, soft.spacing, final.pressure[offset + i]) : NaN;
    fraction[i] = soft && isWet ? readCurve(soft.fraction, soft.spacing, final.pressure[offset + i]) : NaN;
  }
  const pressure = final.pressure.slice(offset, offset + mesh.nodeCount).map((p) => p + vacuumPressure);
  return { time: final.time, thickness, fraction, pressure };
}

/** Resin in the plies, m3, where they are wet. @param areas of the mesh nodes, m2 */
export const resinIn = ({ thickness, fraction }: SettledLaminate, areas: Float64Array): number =>
  areas.reduce((sum, area, i) => {
    const resin = area * thickness[i] * (1 - fraction[i]);
    return Number.isNaN(resin) ? sum : sum + resin;
  }, 0);
