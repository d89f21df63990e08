import { contains, distance, nearestOnSegment, segmentsCross, type Point } from '../geometry/polygon.ts';
import { meshPart, type Mesh } from '../geometry/mesh.ts';
import { areaOf } from '../geometry/shell.ts';
import type { FlowLayer, SoftLaminate } from '../laminate/layers.ts';
import { ModelError } from '../model-error.ts';
import { addChannel, edgeGap, hoseConductance, roundBore } from './channels.ts';
import { fill, type FillRequest, type FillResult, type FillSample } from './fill.ts';
import { findingsOf, type Finding } from './findings.ts';
import type { Gate } from './gates.ts';
import { STANDARD_GRAVITY } from './gravity.ts';
import { addLayers, lagOf } from './layered-network.ts';
import type { CureLaw } from './moving-resin.ts';
import { createNetworkBuilder, type FlowNetwork } from './network.ts';
import type { Action, Trigger } from './sequence.ts';
import { readCurve, type SoftCurve } from './softness.ts';
import { addWell } from './wells.ts';

export interface LayoutLine {
  readonly id: string;
  readonly name: string;
  /** A race is an edge along which resin runs ahead in a gap. */
  readonly kind: 'feed' | 'vent' | 'race';
  /** One point, or a polyline; m. */
  readonly points: readonly Point[];
  /** Bore of the channel, m; the radius of a point is half of it; the width of the gap of a race. */
  readonly bore: number;
  /** Feeds: the hose from pot or tee; null puts the line at pot pressure along its whole length. */
  readonly hose?: { readonly length: number; readonly bore: number; readonly tee?: string | null } | null;
  /** Where the hose joins, as a share of the line's length. */
  readonly inlet?: number;
  /** Height of the resin in the pot over the inlet, m. */
  readonly potLevel?: number;
  readonly startsOpen: boolean;
  readonly actions: readonly LayoutAction[];
}

export interface LayoutAction {
  /** 0 shut, 1 open, in between throttled. */
  readonly opening: number;
  readonly when: LayoutTrigger;
}

export type LayoutTrigger =
  /** Run time. */
  | { readonly kind: 'time'; readonly time: number }
  /** The front has passed a line or mark and gone a distance beyond; delay in s on the clock. */
  | { readonly kind: 'passed'; readonly what: string; readonly distance: number; readonly delay: number }
  | { readonly kind: 'zoneFull'; readonly zone: number; readonly delay: number }
  | { readonly kind: 'drawn'; readonly volume: number; readonly delay: number }
  | { readonly kind: 'opened'; readonly what: string; readonly delay: number }
  | { readonly kind: 'full'; readonly delay: number };

/** Laminate of the whole part (no outline) or of a zone of it; later zones lie over earlier ones. */
export interface ZoneLaminate {
  readonly name: string;
  readonly outline: readonly Point[] | null;
  /** Bag side first; one layer is the laminate averaged through its thickness. */
  readonly layers: readonly FlowLayer[];
  readonly soft: SoftLaminate | null;
  /** Of the plies, m. */
  readonly thickness: number;
  /** A strip between part and vent that slows the resin: it need not fill. */
  readonly isBrake?: boolean;
}

export interface Mark extends Point {
  readonly id: string;
  readonly name: string;
}

export interface ForecastRequest {
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly lines: readonly LayoutLine[];
  readonly marks?: readonly Mark[];
  readonly zones: readonly ZoneLaminate[];
  /** Tees: several feeds behind one hose from the pot. */
  readonly tees?: readonly {
    readonly id: string;
    readonly hose: { readonly length: number; readonly bore: number };
  }[];
  /** Absolute, Pa: on the pot, and under the bag. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  /** kg/m3 */
  readonly density: number;
  /** Rise of the plan along its x and y axes (sine of the angle); null leaves weight out of a flat part. */
  readonly rise?: { readonly x: number; readonly y: number } | null;
  /** Shell to run on instead of the flat plan; its lines are those of the request. */
  readonly shell?: Mesh;
  /** Where the laminate is soft, go on to this run time after the fill. */
  readonly until?: number;
  /** Resin of more than one viscosity: times are then seconds. Temperature by zone and time. */
  readonly resin?: {
    readonly law: CureLaw;
    temperature(zone: number, time: number): number;
    inletState(time: number, drawn: number): number;
  };
  readonly later?: FillRequest['later'];
  readonly nodeCount: number;
  readonly steps?: number;
  readonly onProgress?: (filledFraction: number) => boolean | void;
}

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
/** Share of the pores that a cut-off region must hold; specks on the mould side are more than the layers can tell. */
const SMALLEST_REGION_IN_LAYERS = 5e-3;
/** Fill fraction that counts as full for a whole part or zone. */
const FULL = 0.995;

/**
 * Where the front is at every time, for one part, its laminate and its lines.
 * @throws ModelError of meshPart, sheetNetwork and fill; NO_SUCH_LINE when an action names a line or mark that is not there
 * Checked by forecast.test.ts, layers.test.ts and fill.test.ts.
 */
export function forecastFlow(request: ForecastRequest): FlowForecast {
  const { lines, zones, vacuumPressure } = request;
  const paths = zones
    .slice(1)
    .map((zone) => ({ name: zone.name, points: closed(zone.outline!), isDriven: false }));
  const mesh =
    request.shell ??
    meshPart({ ...request, lines: [...lines, ...paths.filter((path) => touches(path.points, request))] });
  const zoneOfTriangle = zonesOf(mesh, zones);
  const plan = buildNetwork(request, mesh, zoneOfTriangle);
  const { network, gates, gateOf } = plan;
  const zoneOfNode = nodeZones(mesh, zoneOfTriangle, plan.standsAt);
  const layerCount = zones[0].layers.length;
  const inPart = countedNodes(request, mesh, zoneOfNode, layerCount);
  const elevation = elevations(request, mesh, plan.standsAt);
  const result = fill({
    network,
    gates,
    actions: actionsOf(request, mesh, zoneOfNode, plan, inPart),
    feedPressure: request.feedPressure,
    vacuumPressure,
    gravity: elevation ? { elevation, density: request.density } : undefined,
    softness: softnessOf(request, mesh, zoneOfNode, network.nodeCount),
    resin: request.resin && {
      law: request.resin.law,
      temperature: (node, time) => request.resin!.temperature(zoneOfNode[node], time),
      inletState: (time, drawn) => request.resin!.inletState(time, drawn),
    },
    later: request.later,
    until: request.until,
    steps: request.steps,
    frames: FRAMES,
    smallestRegion: layerCount > 1 ? SMALLEST_REGION_IN_LAYERS : undefined,
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

interface Plan {
  readonly network: FlowNetwork;
  readonly gates: readonly Gate[];
  /** Gate of each line; -1 for a race. */
  readonly gateOf: readonly number[];
  /** Mesh node that each network node stands at; pots and tees stand where their hose joins the part. */
  readonly standsAt: Int32Array;
}

function buildNetwork(request: ForecastRequest, mesh: Mesh, zoneOf: ArrayLike<number>): Plan {
  const { lines, zones, tees = [], density, feedPressure } = request;
  const builder = createNetworkBuilder();
  const { plain, sheet } = addLayers(
    builder,
    mesh,
    zoneOf,
    zones.map((zone) => zone.layers),
  );
  const plies = zones[0].layers.flatMap((layer, l) =>
    layer.isSoft || zones[0].layers.length === 1 ? [l] : [],
  );
  const teeNodes = new Map<string, { pot: number; tee: number }>();
  for (const { id, hose } of tees) {
    const [pot, tee] = [builder.addNodes([speck(plain)]), builder.addNodes([speck(plain)])];
    builder.join(pot, tee, hoseConductance(hose));
    teeNodes.set(id, { pot, tee });
  }
  const gates: Gate[] = [];
  const added: { node: number; at: number }[] = [];
  const gateOf = lines.map((line, index) => {
    const nodes = mesh.lineNodes[index];
    const edges = mesh.lineEdges[index];
    if (line.kind === 'race') {
      for (const l of plies)
        addChannel(
          builder,
          mesh,
          { edges, ...edgeGap(line.bore, zones[0].thickness / plies.length) },
          l * mesh.nodeCount,
        );
      return -1;
    }
    const isPoint = nodes.length === 1;
    const well = { node: nodes[0], radius: line.bore / 2 };
    const own = isPoint ? Int32Array.of(addWell(builder, { plain, mesh, sheet, offset: 0 }, well)) : nodes;
    const pressure =
      line.kind === 'feed' ? feedPressure + density * STANDARD_GRAVITY * (line.potLevel ?? 0) : undefined;
    if (isPoint) added.push({ node: own[0], at: nodes[0] });
    const gate = { name: line.name, kind: line.kind, nodes: own, startsOpen: line.startsOpen, pressure };
    if (line.kind === 'vent' || !line.hose) return gates.push(gate) - 1;
    if (!isPoint) addChannel(builder, mesh, { edges, ...roundBore(line.bore) });
    const junction = isPoint ? own[0] : inletNode(mesh, line, nodes);
    const through = line.hose.tee ? teeNodes.get(line.hose.tee) : undefined;
    const from = through?.tee ?? builder.addNodes([speck(plain)]);
    builder.join(from, junction, hoseConductance(line.hose));
    const at = isPoint ? nodes[0] : junction;
    added.push({ node: from, at }, { node: through?.pot ?? from, at });
    return gates.push({ ...gate, supply: { pot: through?.pot ?? from, from, junction } }) - 1;
  });
  const network = builder.build();
  const standsAt = Int32Array.from({ length: network.nodeCount }, (_, i) => i % mesh.nodeCount);
  for (const { node, at } of added) standsAt[node] = at;
  return { network, gates, gateOf, standsAt };
}

/** Pore volume of a pot or tee: next to nothing, for it is full from the start. */
const speck = ({ storage }: FlowNetwork) => 1e-3 * storage[0];

function inletNode(mesh: Mesh, line: LayoutLine, nodes: Int32Array): number {
  const target = alongLine(line.points, line.inlet ?? 0.5);
  return nodes.reduce((best, node) =>
    distance(placeOf(mesh, node), target) < distance(placeOf(mesh, best), target) ? node : best,
  );
}

/** Point at a share of a polyline's length. */
export function alongLine(points: readonly Point[], share: number): Point {
  const lengths = points.slice(1).map((p, i) => distance(points[i], p));
  let left = share * lengths.reduce((a, b) => a + b, 0);
  for (let i = 0; i < lengths.length; i++) {
    if (left <= lengths[i] && lengths[i] > 0) {
      const [a, b, s] = [points[i], points[i + 1], left / lengths[i]];
      return { x: a.x + s * (b.x - a.x), y: a.y + s * (b.y - a.y) };
    }
    left -= lengths[i];
  }
  return points[points.length - 1];
}

function actionsOf(
  { lines, marks = [], zones }: ForecastRequest,
  mesh: Mesh,
  zoneOfNode: Int32Array,
  { gates, gateOf }: Plan,
  inPart: Uint8Array,
): Action[] {
  const lineIndex = (id: string) => {
    const index = lines.findIndex((line) => line.id === id);
    if (index >= 0 && gateOf[index] >= 0) return index;
    throw noSuchLine(id);
  };
  const counted = allNodes(mesh).filter((i) => inPart[i]);
  /** The same places in every layer. */
  const throughLayers = (nodes: Int32Array) =>
    Int32Array.from(zones[0].layers.flatMap((_, l) => Array.from(nodes, (i) => l * mesh.nodeCount + i)));
  const trigger = (when: LayoutTrigger): Trigger => {
    switch (when.kind) {
      case 'time':
      case 'drawn':
        return when;
      case 'opened':
        return { kind: 'opened', gate: gateOf[lineIndex(when.what)], delay: when.delay };
      case 'full':
        return { kind: 'wet', nodes: throughLayers(counted), level: FULL, delay: when.delay };
      case 'zoneFull':
        return {
          kind: 'wet',
          nodes: throughLayers(counted.filter((i) => zoneOfNode[i] === when.zone)),
          level: FULL,
          delay: when.delay,
        };
      case 'passed': {
        const mark = marks.find(({ id }) => id === when.what);
        const index = mark ? -1 : lineIndex(when.what);
        const path = mark ? [mark] : lines[index].points;
        const own = mark ? Int32Array.of(nearestNode(mesh, mark)) : gates[gateOf[index]].nodes;
        const level = mark || lines[index].kind === 'feed' ? 0.5 : 1;
        const near = when.distance > 0 ? nodesWithin(mesh, path, when.distance) : own;
        const nodes = near.length > 0 ? near : own;
        return { kind: 'wet', nodes, level, delay: when.delay };
      }
    }
  };
  return lines.flatMap(({ actions }, index) =>
    gateOf[index] < 0
      ? []
      : actions.map(({ opening, when }) => ({ gate: gateOf[index], opening, when: trigger(when) })),
  );
}

const noSuchLine = (id: string) =>
  new ModelError(
    'NO_SUCH_LINE',
    `An opening waits for "${id}", which is neither a line nor a mark here. Choose another trigger for it.`,
    { id },
  );

const allNodes = ({ nodeCount }: Mesh) => Int32Array.from({ length: nodeCount }, (_, i) => i);

function nodesWithin(mesh: Mesh, path: readonly Point[], reach: number): Int32Array {
  return allNodes(mesh).filter((i) => {
    const p = placeOf(mesh, i);
    return path.length === 1
      ? distance(p, path[0]) <= reach
      : path.slice(1).some((b, k) => distance(p, nearestOnSegment(p, path[k], b)) <= reach);
  });
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

function zonesOf({ positions, triangles }: Mesh, zones: readonly ZoneLaminate[]): Uint16Array {
  const out = new Uint16Array(triangles.length / 3);
  if (zones.length === 1) return out;
  for (let t = 0; t < out.length; t++) {
    const middle = [0, 1].map((k) =>
      [0, 1, 2].reduce((sum, c) => sum + positions[3 * triangles[3 * t + c] + k] / 3, 0),
    );
    zones.forEach(({ outline }, zone) => {
      if (outline && contains(outline, { x: middle[0], y: middle[1] })) out[t] = zone;
    });
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
  if (layerCount > 1)
    for (const { kind, points } of lines)
      if (kind === 'vent') for (const i of nodesWithin(mesh, points, VENT_STRIP)) counted[i] = 0;
  return counted.some((flag) => flag === 1) ? counted : counted.fill(1);
}

/** The last of the counted nodes; a dry one is later than any. */
function latestNode(arrival: Float64Array, counted: Uint8Array): number {
  let last = counted.indexOf(1);
  for (let i = last; i < arrival.length; i++)
    if (counted[i] && (arrival[i] > arrival[last] || Number.isNaN(arrival[i]))) last = i;
  return last;
}

export function placeOf({ positions }: Mesh, node: number): Point {
  return { x: positions[3 * node], y: positions[3 * node + 1] };
}

export function nearestNode(mesh: Mesh, place: Point): number {
  let best = 0;
  for (let i = 1; i < mesh.nodeCount; i++)
    if (distance(placeOf(mesh, i), place) < distance(placeOf(mesh, best), place)) best = i;
  return best;
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
