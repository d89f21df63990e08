import { meshPart, type Mesh } from '../geometry/mesh.ts';
import { allNodes, nearestNode, nodesWithin, placeOf } from '../geometry/mesh-places.ts';
import { contains, segmentsCross, type Point } from '../geometry/polygon.ts';
import { areaOf } from '../geometry/shell.ts';
import { isInside, type PartShape } from '../layouts/frame.ts';
import { fill, type FillResult, type FillSample } from './fill.ts';
import { findingsOf, type Finding } from './findings.ts';
import { lagOf } from './layered-network.ts';
import type { ForecastRequest, ZoneLaminate } from './layout.ts';
import { actionsOf, buildNetwork } from './layout-network.ts';
import { readCurve, type SoftCurve } from './softness.ts';

/** Times are fluidity times, 1/Pa, which any resin at any temperature reads its minutes from; seconds with a resin of its own. */
export interface FlowForecast {
  readonly timeUnit: 'fluidity' | 'seconds';
  readonly mesh: Mesh;
  /** When the whole thickness is wet, a mesh node; NaN where the front does not come. */
  readonly arrival: Float64Array;
  /** Bag side first; one when averaged. */
  readonly layers: readonly { readonly name: string; readonly arrival: Float64Array }[];
  /** Lag of the mould side behind the bag side; null when averaged. */
  readonly lag: {
    readonly time: Float64Array;
    readonly length: Float64Array;
    /** Exceeded on one twentieth of the part only: where fronts meet there is no length to speak of. */
    readonly largest: number;
  } | null;
  readonly isFilled: boolean;
  readonly fillTime: number;
  /** Where the front arrives last. */
  readonly lastPlace: Point;
  readonly samples: readonly FillSample[];
  readonly poreVolume: number;
  readonly events: readonly LineEvent[];
  readonly findings: readonly Finding[];
  readonly marks: readonly { readonly id: string; readonly name: string; readonly arrival: number }[];
  readonly dryRegions: readonly DryRegion[];
  /** Pressure under the bag, Pa absolute, on the bag side of each mesh node. */
  readonly frames: readonly { readonly time: number; readonly pressure: Float32Array }[];
  /** Share of its life that the resin had used when the front came, with a resin of its own. */
  readonly ageAtArrival: Float64Array | null;
  /** The largest of them in the part itself. */
  readonly oldestAtArrival: number | null;
  /** After the run has settled; null where the laminate is taken as stiff. */
  readonly final: {
    readonly time: number;
    readonly thickness: Float64Array;
    readonly fraction: Float64Array;
    readonly pressure: Float64Array;
  } | null;
  /** Resin that left the pots, and that went into vents, m3, to the end of the run. */
  readonly drawn: number;
  readonly vented: number;
  readonly massError: number;
}

export interface LineEvent {
  readonly time: number;
  readonly name: string;
  readonly kind: 'opens' | 'throttles' | 'closes' | 'reached';
  readonly filled: number;
}

export interface DryRegion {
  readonly place: Point;
  /** Mesh nodes it then took. */
  readonly nodes: Int32Array;
  /** When it lost its way to the vents, and its dry area then, m2. */
  readonly time: number;
  readonly area: number;
  /** Area the trapped air takes at the end, m2, and its absolute pressure, Pa. */
  readonly finalArea: number;
  readonly finalPressure: number;
  /** Area against time. */
  readonly history: readonly { readonly time: number; readonly area: number }[];
}

const FRAMES = 40;
/** Share of the pores that a cut-off region must hold, and how many nodes' worth: less is the mesh's, not the part's. */
const SMALLEST_REGION = 1e-3;
const SMALLEST_NODES = 1.3;
/** Share of the pores that a cut-off region must hold; specks on the mould side are more than the layers can tell. */
const SMALLEST_REGION_IN_LAYERS = 5e-3;

/**
 * Where the front is at every time, for one part, its laminate and its lines.
 * @throws ModelError of meshPart, sheetNetwork and fill; NO_SUCH_LINE when an action names a line or mark that is not there
 * Checked by forecast.test.ts, layers.test.ts and fill.test.ts.
 */
export function forecastFlow(given: ForecastRequest): FlowForecast {
  const request = withBareZones(given);
  const { lines, zones, vacuumPressure, meshAreas = [] } = request;
  const laminates = given.zones.length;
  const paths = [
    ...given.zones.slice(1).map((zone) => ({ name: zone.name, points: closed(zone.outline!) })),
    ...meshAreas.flatMap(({ outline, holes }, n) =>
      [outline, ...holes].map((ring) => ({ name: `Mesh area ${n + 1}`, points: closed(ring) })),
    ),
  ].map((path) => ({ ...path, isDriven: false }));
  const mesh =
    request.shell ??
    meshPart({ ...request, lines: [...lines, ...paths.filter((path) => touches(path.points, request))] });
  const zoneOfTriangle = zonesOf(mesh, given.zones, meshAreas);
  const plan = buildNetwork(request, mesh, zoneOfTriangle);
  const { network, gates, gateOf } = plan;
  const zoneOfNode = nodeZones(mesh, zoneOfTriangle, plan.standsAt);
  const layerCount = zones[0].layers.length;
  const laminateOfNode = zoneOfNode.map((zone) => zone % laminates);
  const inPart = countedNodes(request, mesh, zoneOfNode, layerCount);
  const elevation = elevations(request, mesh, plan.standsAt);
  const result = fill({
    network,
    gates,
    actions: actionsOf(request, mesh, laminateOfNode, plan, inPart),
    feedPressure: request.feedPressure,
    vacuumPressure,
    gravity: elevation ? { elevation, density: request.density } : undefined,
    softness: softnessOf(request, mesh, zoneOfNode, network.nodeCount),
    resin: request.resin && {
      law: request.resin.law,
      temperature: (node, time) => request.resin!.temperature(laminateOfNode[node], time),
      inletState: (time, drawn) => request.resin!.inletState(time, drawn),
    },
    later: request.later,
    until: request.until,
    steps: request.steps,
    frames: FRAMES,
    smallestRegion:
      layerCount > 1 ? SMALLEST_REGION_IN_LAYERS : Math.max(SMALLEST_REGION, SMALLEST_NODES / mesh.nodeCount),
    spare: layerCount > 1 ? undefined : ventCorners(mesh, lines),
    onProgress: request.onProgress,
  });
  const layers = zones[0].layers.map(({ name }, l) => ({
    name,
    arrival: result.arrival.slice(l * mesh.nodeCount, (l + 1) * mesh.nodeCount),
  }));
  const arrival = wettest(layers.map((layer) => layer.arrival));
  const partArrival = arrival.filter((_, i) => inPart[i]);
  const ageAtArrival =
    result.cureAtArrival?.slice(0, mesh.nodeCount).map((state) => state / request.resin!.law.gelState) ??
    null;
  const lag = layerCount > 1 ? lagOf(mesh, layers[0].arrival, layers[layerCount - 1].arrival) : null;
  const nameOf = (gate: number) => lines[gateOf.indexOf(gate)].name;
  const poreVolume = network.storage.subarray(0, layerCount * mesh.nodeCount).reduce((sum, v) => sum + v, 0);
  const partArea = areaOf(mesh.positions, mesh.triangles);
  const toArea = (volume: number) => (volume / poreVolume) * partArea;
  const last = result.samples[result.samples.length - 1];
  const pressureAt = (above: ArrayLike<number>) =>
    Float32Array.from({ length: mesh.nodeCount }, (_, i) => above[i] + vacuumPressure);
  return {
    timeUnit: request.resin ? 'seconds' : 'fluidity',
    mesh,
    arrival,
    layers,
    lag: lag && {
      ...lag,
      largest: percentile(
        lag.length.filter((_, i) => inPart[i]),
        0.95,
      ),
    },
    isFilled: result.isFilled || partArrival.every(Number.isFinite),
    fillTime: partArrival.reduce((latest, t) => (t > latest ? t : latest), 0),
    lastPlace: placeOf(mesh, latestNode(arrival, inPart)),
    samples: result.samples,
    poreVolume,
    events: result.events.map(({ time, gate, kind, filled }) => ({ time, kind, filled, name: nameOf(gate) })),
    findings: findingsOf({ result, gates, nameOf, mesh, drive: request }),
    marks: (request.marks ?? []).map(({ id, name, ...place }) => ({
      id,
      name,
      arrival: arrival[nearestNode(mesh, place)],
    })),
    dryRegions: result.trapped.map((region) => ({
      place: centre(mesh, network.storage, region.nodes),
      nodes: Int32Array.from(new Set(region.nodes.map((i) => i % mesh.nodeCount))),
      time: region.time,
      area: toArea(region.volume),
      finalArea: toArea(region.finalVolume),
      finalPressure: region.finalPressure,
      history: region.history.map(({ time, volume }) => ({ time, area: toArea(volume) })),
    })),
    frames: result.frames.map(({ time, pressure }) => ({ time, pressure: pressureAt(pressure) })),
    oldestAtArrival:
      ageAtArrival && ageAtArrival.reduce((most, age, i) => (inPart[i] && age > most ? age : most), 0),
    ageAtArrival,
    final: finalOf(request, mesh, zoneOfNode, result),
    drawn: last.entered,
    vented: last.vented,
    massError: result.massError,
  };
}

function softnessOf({ zones }: ForecastRequest, mesh: Mesh, zoneOfNode: Int32Array, nodeCount: number) {
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
function finalOf(
  { zones, vacuumPressure }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  { final }: FillResult,
): FlowForecast['final'] {
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

/** With mesh areas each laminate is there twice: with its mesh, then without. */
function withBareZones(request: ForecastRequest): ForecastRequest {
  const { zones, meshAreas = [] } = request;
  if (meshAreas.length === 0) return request;
  return { ...request, zones: [...zones, ...zones.map((zone) => ({ ...zone, ...zone.bare }))] };
}

function zonesOf(
  { positions, triangles }: Mesh,
  zones: readonly ZoneLaminate[],
  meshAreas: readonly PartShape[],
): Uint16Array {
  const out = new Uint16Array(triangles.length / 3);
  if (zones.length === 1 && meshAreas.length === 0) return out;
  for (let t = 0; t < out.length; t++) {
    const middle = [0, 1].map((k) =>
      [0, 1, 2].reduce((sum, c) => sum + positions[3 * triangles[3 * t + c] + k] / 3, 0),
    );
    const at = { x: middle[0], y: middle[1] };
    zones.forEach(({ outline }, zone) => {
      if (outline && contains(outline, at)) out[t] = zone;
    });
    if (meshAreas.length > 0 && !meshAreas.some((area) => isInside(area, at))) out[t] += zones.length;
  }
  return out;
}

/** Zone of each network node: that of any of its triangles, the last one counting. */
function nodeZones(mesh: Mesh, zoneOfTriangle: ArrayLike<number>, standsAt: Int32Array): Int32Array {
  const onMesh = new Int32Array(mesh.nodeCount);
  mesh.triangles.forEach((i, e) => (onMesh[i] = zoneOfTriangle[Math.floor(e / 3)]));
  return standsAt.map((node) => onMesh[node]);
}

/** A layer dry at a node leaves the node dry. */
function wettest(layers: readonly Float64Array[]): Float64Array {
  return layers[0].map((_, i) => layers.reduce((latest, layer) => Math.max(latest, layer[i]), 0));
}

function percentile(values: Float64Array, share: number): number {
  const sorted = values.filter((v) => !Number.isNaN(v)).sort();
  return sorted.length > 0 ? sorted[Math.floor(share * (sorted.length - 1))] : 0;
}

const closed = (outline: readonly Point[]) => [...outline, outline[0]];

/** A zone path that runs wholly outside the part needs no edges. */
function touches(points: readonly Point[], { outline }: ForecastRequest): boolean {
  const crosses = points
    .slice(1)
    .some((q, k) =>
      outline.some((a, n) => segmentsCross(points[k], q, a, outline[(n + 1) % outline.length])),
    );
  return crosses || points.some((p) => contains(outline, p));
}

/** Under a vent nothing presses resin towards the mould, so that strip, m, fills last and hardly; it is not counted as the last corner. */
const VENT_STRIP = 0.02;

/** 1 for mesh nodes that have to fill: not in a brake, and, where layers are told apart, not right under a vent. */
function countedNodes(
  { zones, lines }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  layerCount: number,
): Uint8Array {
  const counted = Uint8Array.from({ length: mesh.nodeCount }, (_, i) =>
    zones[zoneOfNode[i]].isBrake ? 0 : 1,
  );
  if (layerCount > 1) {
    for (const { kind, points } of lines)
      if (kind === 'vent') for (const i of nodesWithin(mesh, points, VENT_STRIP)) counted[i] = 0;
  } else for (const i of ventCorners(mesh, lines)) counted[i] = 0;
  return counted.some((flag) => flag === 1) ? counted : counted.fill(1);
}

/**
 * Corners of the mesh with vent on both sides: vacuum all round drives nothing into them, and a finer mesh has them smaller.
 */
function ventCorners(mesh: Mesh, lines: ForecastRequest['lines']): Int32Array {
  const isVent = new Uint8Array(mesh.nodeCount);
  lines.forEach(({ kind }, n) => {
    if (kind === 'vent') for (const i of mesh.lineNodes[n]) isVent[i] = 1;
  });
  const isOpen = new Uint8Array(mesh.nodeCount);
  const { triangles } = mesh;
  for (let t = 0; t < triangles.length; t += 3)
    for (let c = 0; c < 3; c++)
      if (!isVent[triangles[t + c]])
        isOpen[triangles[t + ((c + 1) % 3)]] = isOpen[triangles[t + ((c + 2) % 3)]] = 1;
  return allNodes(mesh).filter((i) => isVent[i] && !isOpen[i]);
}

/** The last of the counted nodes; a dry one is later than any. */
function latestNode(arrival: Float64Array, counted: Uint8Array): number {
  let last = counted.indexOf(1);
  for (let i = last; i < arrival.length; i++)
    if (counted[i] && (arrival[i] > arrival[last] || Number.isNaN(arrival[i]))) last = i;
  return last;
}

function centre(mesh: Mesh, weight: Float64Array, nodes: Int32Array): Point {
  let [x, y, sum] = [0, 0, 0];
  for (const i of nodes) {
    const p = placeOf(mesh, i % mesh.nodeCount);
    x += weight[i] * p.x;
    y += weight[i] * p.y;
    sum += weight[i];
  }
  return { x: x / sum, y: y / sum };
}
