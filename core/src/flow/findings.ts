import type { Mesh } from '../geometry/mesh.ts';
import type { FillResult } from './fill-types.ts';
import { distance } from '../geometry/polygon.ts';
import type { Gate } from './gates.ts';
import type { VentCorner } from './vent-corners.ts';

/** Something a practitioner would want to be told about a run, as data. */
export type Finding =
  /** Resin comes to a vent while much of the part is dry. */
  | {
      readonly kind: 'ventFloodsEarly';
      readonly lineId: string;
      readonly time: number;
      readonly filled: number;
    }
  /** Resin pressure above ambient lifts the bag. */
  | { readonly kind: 'bagFloats'; readonly time: number; readonly area: number; readonly pressure: number }
  /** The trigger of an opening or closing never came. */
  | {
      readonly kind: 'neverTriggers';
      readonly lineId: string;
      readonly actionId: string | null;
      readonly opening: number;
    }
  /** The hose takes this share of the pressure when half the part is full. */
  | { readonly kind: 'hoseTakes'; readonly lineId: string; readonly share: number }
  /** Corners between vents that stay open: nothing drives resin into them, and they are counted to within the reach only, m. */
  | { readonly kind: 'cornersBetweenVents'; readonly count: number; readonly reach: number };

/** Filled share below which a flooded vent counts as early. */
const EARLY = 0.95;
/** Pa above ambient that a bag and its tape do not notice. */
const FLOAT = 50;
const HOSE_SHARE = 0.15;

export function findingsOf(run: {
  result: FillResult;
  gates: readonly Gate[];
  lineOf(gate: number): string;
  mesh: Mesh;
  /** With the index of the lines that make each. */
  corners: readonly VentCorner[];
  gateOf: readonly number[];
  /** Absolute, Pa. */
  drive: { readonly feedPressure: number; readonly vacuumPressure: number };
}): Finding[] {
  const { result, gates, lineOf, mesh, corners, gateOf } = run;
  const { feedPressure, vacuumPressure } = run.drive;
  const findings: Finding[] = [];
  for (const { gate, kind, time, filled } of result.events)
    if (kind === 'reached' && gates[gate].kind === 'vent' && filled < EARLY)
      findings.push({ kind: 'ventFloodsEarly', lineId: lineOf(gate), time, filled });
  const limit = feedPressure - vacuumPressure + FLOAT;
  const floating = result.frames.find(({ pressure }) =>
    pressure.subarray(0, mesh.nodeCount).some((p) => p > limit),
  );
  if (floating) {
    const last = result.frames[result.frames.length - 1].pressure.subarray(0, mesh.nodeCount);
    const share = last.filter((p) => p > limit).length / mesh.nodeCount;
    const pressure = result.frames.reduce(
      (most, frame) => frame.pressure.subarray(0, mesh.nodeCount).reduce((a, b) => Math.max(a, b), most),
      0,
    );
    findings.push({
      kind: 'bagFloats',
      time: floating.time,
      area: share,
      pressure: pressure + vacuumPressure,
    });
  }
  for (const { gate, opening, when, id } of result.waiting)
    // What is still to come on the clock when the part is full is no fault.
    if (!(when.kind === 'time' && result.isFilled))
      findings.push({ kind: 'neverTriggers', lineId: lineOf(gate), actionId: id ?? null, opening });
  const half = result.frames[Math.floor(result.frames.length / 2)];
  gates.forEach(({ supply, pressure }, gate) => {
    if (!supply || !half || !(half.pressure[supply.junction] > 0)) return;
    const drive = (pressure ?? feedPressure) - vacuumPressure;
    const isOpen = result.events.some(
      (event) => event.gate === gate && event.kind === 'opens' && event.time <= half.time,
    );
    const share = 1 - half.pressure[supply.junction] / drive;
    if (isOpen && share > HOSE_SHARE) findings.push({ kind: 'hoseTakes', lineId: lineOf(gate), share });
  });
  const open = corners.filter(({ lines }) => lines.every((line) => result.final.opening[gateOf[line]] > 0));
  if (open.length > 0) {
    const reach = distance(open[0].place, open[0].rim[0]);
    findings.push({ kind: 'cornersBetweenVents', count: open.length, reach });
  }
  return findings;
}
