import type { Mesh } from '../geometry/mesh.ts';
import { nearestNode, nodeAreas } from '../geometry/mesh-places.ts';
import { areaOf } from '../geometry/shell.ts';
import { countedNodes } from './counted-nodes.ts';
import type { FillRequest } from './fill-types.ts';
import type { ForecastRequest } from './layout.ts';
import { actionsOf, buildNetwork, type Plan } from './layout-network.ts';
import { planMesh } from './plan-mesh.ts';
import { softnessOf } from './settled.ts';
import { cornersBetweenVents, ventCornerNodes, type VentCorner } from './vent-corners.ts';
import { nodeZones, withUncovered, zonesOf } from './zones-on-mesh.ts';

const FRAMES = 40;
/** Share of the part that a cut-off region must leave dry, and how many nodes' worth: less is the mesh's, not the part's. */
const SMALLEST_REGION = 1e-3;
const SMALLEST_NODES = 1.3;
/** The same with layers; specks on the mould side are more than the layers can tell. */
const SMALLEST_REGION_IN_LAYERS = 5e-3;

/** A request on its mesh: everything that the run and its reading need. */
export interface Prepared {
  readonly request: ForecastRequest;
  /** Laminates without their uncovered copies. */
  readonly laminates: number;
  readonly mesh: Mesh;
  readonly plan: Plan;
  readonly zoneOfNode: Int32Array;
  readonly layerCount: number;
  readonly inPart: Uint8Array;
  /** Corners between vents on what has to fill (in a brake none has to), and the mesh nodes of all corners. */
  readonly corners: readonly VentCorner[];
  readonly cornerNodes: Int32Array;
  /** m2 */
  readonly partArea: number;
}

/** Errors as forecastFlow. */
export function prepare(given: ForecastRequest): Prepared {
  const request = withUncovered(given);
  const mesh = planMesh(given);
  const zoneOfTriangle = zonesOf(mesh, given.zones, given.coverings ?? []);
  const plan = buildNetwork(request, mesh, zoneOfTriangle);
  const zoneOfNode = nodeZones(mesh, zoneOfTriangle, plan.standsAt);
  const layerCount = request.zones[0].layers.length;
  const partArea = areaOf(mesh.positions, mesh.triangles);
  const allCorners = cornersBetweenVents(request.lines, partArea);
  const cornerNodes = ventCornerNodes(mesh, request.lines, allCorners);
  const inPart = countedNodes(request, mesh, zoneOfNode, layerCount, cornerNodes);
  const corners = allCorners.filter(
    ({ place }) => !request.zones[zoneOfNode[nearestNode(mesh, place)]].isBrake,
  );
  return {
    ...{ request, laminates: given.zones.length, mesh, plan, zoneOfNode, layerCount },
    ...{ inPart, corners, cornerNodes, partArea },
  };
}

/** What the solver is asked. */
export function fillRequestOf(prepared: Prepared): FillRequest {
  const { request, laminates, mesh, plan, zoneOfNode, layerCount, inPart, partArea } = prepared;
  const { resin, density } = request;
  const laminateOfNode = zoneOfNode.map((zone) => zone % laminates);
  const elevation = elevations(request, mesh, plan.standsAt);
  return {
    network: plan.network,
    gates: plan.gates,
    actions: actionsOf(request, mesh, laminateOfNode, plan, inPart),
    feedPressure: request.feedPressure,
    vacuumPressure: request.vacuumPressure,
    gravity: elevation ? { elevation, density } : undefined,
    softness: softnessOf(request, mesh, zoneOfNode, plan.network.nodeCount),
    resin: resin && {
      law: resin.law,
      temperature: (node, time) => resin.temperature(laminateOfNode[node], time),
      inletState: (time, drawn, pot) => resin.inletState(time, drawn, pot),
    },
    later: request.later,
    until: request.until,
    steps: request.steps,
    isGlance: request.isGlance,
    footprint: { placeOf: placesOn(mesh, plan, layerCount), area: nodeAreas(mesh) },
    frames: FRAMES,
    smallestArea:
      partArea *
      (layerCount > 1
        ? SMALLEST_REGION_IN_LAYERS
        : Math.max(SMALLEST_REGION, SMALLEST_NODES / mesh.nodeCount)),
    spare: cornersThroughLayers(prepared),
    onProgress: request.onProgress,
    start: request.start,
    stopAt: request.stopAt,
  };
}

/** A gap is where the laminate beside it begins: resin in it has come to both. */
export function arrivalIn({ mesh, plan }: Prepared, arrival: Float64Array, layer: number): Float64Array {
  const own = arrival.slice(layer * mesh.nodeCount, (layer + 1) * mesh.nodeCount);
  for (const { node, at } of plan.raceNodes) own[at] = arrival[node] <= own[at] ? arrival[node] : own[at];
  return own;
}

const cornersThroughLayers = ({ mesh, layerCount, cornerNodes }: Prepared) =>
  Int32Array.from({ length: layerCount * cornerNodes.length }, (_, n) => {
    const layer = Math.floor(n / cornerNodes.length);
    return layer * mesh.nodeCount + cornerNodes[n % cornerNodes.length];
  });

/** Mesh node under each network node; -1 for what is not part of the laminate. */
const placesOn = ({ nodeCount }: Mesh, { network }: Plan, layerCount: number) =>
  Int32Array.from({ length: network.nodeCount }, (_, i) => (i < layerCount * nodeCount ? i % nodeCount : -1));

function elevations(
  { rise, shell }: ForecastRequest,
  { positions }: Mesh,
  standsAt: Int32Array,
): Float64Array | null {
  if (!shell && !rise) return null;
  return Float64Array.from(standsAt, (node) =>
    shell ? positions[3 * node + 2] : rise!.x * positions[3 * node] + rise!.y * positions[3 * node + 1],
  );
}
