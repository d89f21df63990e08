import type { Point } from '../geometry/polygon.ts';
import { meshPart, type Mesh } from '../geometry/mesh.ts';
import { fill, type FillSample } from './fill.ts';
import type { Gate } from './gates.ts';
import { sheetNetwork } from './network.ts';
import { uniformSheet } from './sheet.ts';
import { addWells } from './wells.ts';

export interface LayoutLine {
  readonly name: string;
  readonly kind: 'feed' | 'vent';
  /** One point, or a polyline; m. */
  readonly points: readonly Point[];
  /** Bore of the channel, m; the radius of a point is half of it. */
  readonly bore: number;
  readonly opens: 'atStart' | 'whenReached';
  readonly closesWhenReached: boolean;
}

export interface ForecastRequest {
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly lines: readonly LayoutLine[];
  /** From computeStack; the same all over the part. */
  readonly transmissibility: { readonly xx: number; readonly yy: number; readonly xy: number };
  readonly storage: number;
  /** Absolute, Pa. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  readonly nodeCount: number;
  readonly onProgress?: (filledFraction: number) => boolean | void;
}

/** All times are fluidity times, 1/Pa: any resin at any temperature reads its minutes from them. */
export interface FlowForecast {
  readonly mesh: Mesh;
  /** One a mesh node; NaN where the front does not come. */
  readonly arrival: Float64Array;
  readonly isFilled: boolean;
  readonly fillTime: number;
  /** Where the front arrives last. */
  readonly lastPlace: Point;
  readonly samples: readonly FillSample[];
  readonly poreVolume: number;
  readonly events: readonly {
    readonly time: number;
    readonly name: string;
    readonly kind: 'opens' | 'reached' | 'closes';
  }[];
  readonly dryRegions: readonly DryRegion[];
  readonly massError: number;
}

export interface DryRegion {
  readonly place: Point;
  /** When it lost its way to the vents, and its dry area then, m2. */
  readonly time: number;
  readonly area: number;
  /** Area left once the trapped air is pressed to feed pressure, m2. */
  readonly finalArea: number;
}

/**
 * Where the front is at every fluidity time, for one outline, one averaged laminate and its lines.
 * @throws ModelError of meshPart, sheetNetwork and fill
 * Checked by forecast.test.ts and fill.test.ts.
 */
export function forecastFlow(request: ForecastRequest): FlowForecast {
  const { outline, holes, lines, transmissibility, storage, nodeCount } = request;
  const mesh = meshPart({ outline, holes, lines, nodeCount });
  const sheet = uniformSheet(mesh, { ...transmissibility, storage });
  const plain = sheetNetwork(mesh, sheet);
  const isPoint = lines.map((_, index) => mesh.lineNodes[index].length === 1);
  const wells = lines.flatMap(({ bore }, index) =>
    isPoint[index] ? [{ node: mesh.lineNodes[index][0], radius: bore / 2 }] : [],
  );
  const network = wells.length > 0 ? addWells(plain, mesh, sheet, wells) : plain;
  let well = mesh.nodeCount;
  const gates: Gate[] = lines.map(({ name, kind, opens, closesWhenReached }, index) => ({
    name,
    kind,
    opens,
    closesWhenReached,
    nodes: isPoint[index] ? Int32Array.of(well++) : mesh.lineNodes[index],
  }));
  const result = fill({ ...request, network, gates });
  const arrival = result.arrival.slice(0, mesh.nodeCount);
  const areaOf = (volume: number) => volume / storage;
  return {
    mesh,
    arrival,
    isFilled: result.isFilled,
    fillTime: result.fillTime,
    lastPlace: placeOf(
      mesh,
      arrival.reduce((last, time, i) => (time > arrival[last] || Number.isNaN(arrival[last]) ? i : last), 0),
    ),
    samples: result.samples,
    poreVolume: plain.storage.reduce((sum, v) => sum + v, 0),
    events: result.events.map(({ time, gate, kind }) => ({ time, kind, name: gates[gate].name })),
    dryRegions: result.trapped.map((region) => ({
      place: centre(mesh, plain.storage, region.nodes),
      time: region.time,
      area: areaOf(region.volume),
      finalArea: areaOf(region.finalVolume),
    })),
    massError: result.massError,
  };
}

function placeOf({ positions }: Mesh, node: number): Point {
  return { x: positions[3 * node], y: positions[3 * node + 1] };
}

function centre(mesh: Mesh, weight: Float64Array, nodes: Int32Array): Point {
  let [x, y, sum] = [0, 0, 0];
  for (const i of nodes) {
    if (i >= mesh.nodeCount) continue;
    const p = placeOf(mesh, i);
    x += weight[i] * p.x;
    y += weight[i] * p.y;
    sum += weight[i];
  }
  return { x: x / sum, y: y / sum };
}
