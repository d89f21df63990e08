import type { Mesh } from '../geometry/mesh.ts';
import { nodeAreas, placeOf } from '../geometry/mesh-places.ts';
import type { Point } from '../geometry/polygon.ts';
import { latestNode } from './counted-nodes.ts';
import { fill } from './fill.ts';
import type { FillResult, FillSample, FillStart } from './fill-types.ts';
import { findingsOf, type Finding } from './findings.ts';
import { lagOf } from './layered-network.ts';
import type { ForecastRequest } from './layout.ts';
import { arrivalIn, fillRequestOf, prepare, type Prepared } from './prepared.ts';
import { arrivalAt, valueAt } from './probe.ts';
import { finalOf, resinIn, type SettledLaminate } from './settled.ts';
import { oldestThrough, wettest } from './through-layers.ts';

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
  /** What had flowed at each time, and the share of the part's area that was wet through. */
  readonly samples: readonly (FillSample & { readonly wet: number })[];
  /** Pores of the laminate with what lies on it, m3; lines and races not counted. */
  readonly poreVolume: number;
  readonly events: readonly LineEvent[];
  readonly findings: readonly Finding[];
  readonly marks: readonly { readonly id: string; readonly arrival: number }[];
  readonly dryRegions: readonly DryRegion[];
  /** Pressure under the bag, Pa absolute, on the bag side of each mesh node. */
  readonly frames: readonly { readonly time: number; readonly pressure: Float32Array }[];
  /** Share of its way to gel that the resin had gone when the front came, the oldest through the thickness, with a resin of its own. */
  readonly ageAtArrival: Float64Array | null;
  /** The largest of them in the part itself. */
  readonly oldestAtArrival: number | null;
  /** After the run has settled; null where the laminate is taken as stiff. */
  readonly final: SettledLaminate | null;
  /** Resin in the plies then, m3, of what is wet. */
  readonly resinAtEnd: number | null;
  /** Resin that left the pots, and that went into vents, m3, to the end of the run. */
  readonly drawn: number;
  readonly vented: number;
  readonly massError: number;
  /** Where a run that was told to stop stands; null of one that went to its end. */
  readonly state: FillStart | null;
}

export interface LineEvent {
  readonly time: number;
  readonly lineId: string;
  /** The action that did it; null at the start, and where the front came. */
  readonly actionId: string | null;
  readonly kind: 'opens' | 'throttles' | 'closes' | 'reached';
  readonly filled: number;
}

export interface DryRegion {
  /** Its own within this forecast. */
  readonly id: string;
  /** Zone in which it lies; null where that is the part's own laminate. */
  readonly zoneId: string | null;
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

/**
 * Where the front is at every time, for one part, its laminate and its lines.
 * @throws ModelError of meshPart, buildNetwork and fill; NO_SUCH_LINE when an action names a line or mark that is not there
 * Checked by forecast.test.ts, layers.test.ts and fill.test.ts.
 */
export function forecastFlow(given: ForecastRequest): FlowForecast {
  const prepared = prepare(given);
  return read(prepared, fill(fillRequestOf(prepared)));
}

/** The run as a forecast: by mesh node, line and place. */
function read(prepared: Prepared, result: FillResult): FlowForecast {
  const { request, mesh, plan, zoneOfNode, inPart, partArea, corners } = prepared;
  const { zones, lines, vacuumPressure } = request;
  const layers = zones[0].layers.map(({ name }, l) => ({
    name,
    arrival: arrivalIn(prepared, result.arrival, l),
  }));
  const arrival = wettest(layers.map((layer) => layer.arrival));
  const partArrival = arrival.filter((_, i) => inPart[i]);
  const ageAtArrival = oldestThrough(result, mesh, layers.length)?.map(
    (state) => state / request.resin!.law.gelState,
  );
  const lineOf = (gate: number) => lines[plan.gateOf.indexOf(gate)].id;
  const final = finalOf(request, mesh, zoneOfNode, result);
  const end = result.samples[result.samples.length - 1];
  const last = lastOf(prepared, arrival);
  return {
    timeUnit: request.resin ? 'seconds' : 'fluidity',
    mesh,
    arrival,
    layers,
    lag: lagThrough(prepared, layers),
    isFilled: result.isFilled || partArrival.every(Number.isFinite),
    fillTime: last.time,
    lastPlace: last.place,
    samples: result.samples.map((sample) => ({ ...sample, wet: 1 - sample.dryArea / partArea })),
    poreVolume: plan.pores,
    events: result.events.map(({ gate, ...event }) => ({ ...event, lineId: lineOf(gate) })),
    findings: findingsOf({
      ...{ result, lineOf, mesh, drive: request },
      ...{ gates: plan.gates, gateOf: plan.gateOf, corners },
    }),
    marks: (request.marks ?? []).map(({ id, ...place }) => ({
      id,
      arrival: arrivalAt(mesh, arrival, place),
    })),
    dryRegions: dryRegionsOf(prepared, result),
    frames: result.frames.map(({ time, pressure }) => ({
      time,
      pressure: Float32Array.from({ length: mesh.nodeCount }, (_, i) => pressure[i] + vacuumPressure),
    })),
    oldestAtArrival:
      ageAtArrival?.reduce((most, age, i) => (inPart[i] && age > most ? age : most), 0) ?? null,
    ageAtArrival: ageAtArrival ?? null,
    final,
    resinAtEnd: final && resinIn(final, nodeAreas(mesh)),
    drawn: end.entered,
    vented: end.vented,
    massError: result.massError,
    state: request.stopAt === undefined ? null : stateOf(result),
  };
}

/** From where another run of the same plan can go on. */
function stateOf({ final, samples }: FillResult): FillStart {
  const { entered, enteredBy, vented } = samples[samples.length - 1];
  const { time, level, opening, pores, cure } = final;
  return { time, level, opening, pores, cure: cure ?? undefined, drawn: entered, drawnBy: enteredBy, vented };
}

/** The last counted place, and when the front comes to it. Between vents the count ends at their rim, which few nodes lie on. */
function lastOf({ mesh, inPart, corners }: Prepared, arrival: Float64Array): { place: Point; time: number } {
  const node = latestNode(arrival, inPart);
  const time = arrival.reduce((latest, t, i) => (inPart[i] && t > latest ? t : latest), 0);
  const isDry = Number.isNaN(arrival[node]);
  return (isDry ? [] : corners)
    .flatMap(({ rim }) => rim)
    .map((place) => ({ place, time: valueAt(mesh, arrival, place) }))
    .reduce((last, rim) => (rim.time > last.time ? rim : last), { place: placeOf(mesh, node), time });
}

function lagThrough({ mesh, inPart }: Prepared, layers: FlowForecast['layers']): FlowForecast['lag'] {
  if (layers.length === 1) return null;
  const lag = lagOf(mesh, layers[0].arrival, layers[layers.length - 1].arrival);
  const inside = lag.length.filter((_, i) => inPart[i]);
  return { ...lag, largest: percentile(inside, 0.95) };
}

function dryRegionsOf(
  { request, laminates, mesh, plan, zoneOfNode }: Prepared,
  { trapped }: FillResult,
): DryRegion[] {
  return trapped.map((region, n) => ({
    id: `cut-${n + 1}`,
    zoneId: request.zones[zoneOfNode[region.nodes[0]] % laminates].id ?? null,
    place: centre(mesh, plan.network.storage, region.nodes),
    nodes: Int32Array.from(new Set(region.nodes.map((i) => i % mesh.nodeCount))),
    time: region.time,
    area: region.area,
    finalArea: region.finalArea,
    finalPressure: region.finalPressure,
    history: region.history,
  }));
}

function percentile(values: Float64Array, share: number): number {
  const sorted = values.filter((v) => !Number.isNaN(v)).sort();
  return sorted.length > 0 ? sorted[Math.floor(share * (sorted.length - 1))] : 0;
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
