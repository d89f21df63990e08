import type { Entry, EntryBody } from '@wick/contract/run/run';
import { clockOf } from '@wick/core/verdict/verdict';
import { demoJobs, demoShop } from '../../demo/jobs.ts';
import { laidOut, type LaidJob } from '../../job/laid.ts';
import { runConditionsOf } from '../../resin/run.ts';
import { runStateOf } from '../../run/state.ts';
import { infusionOf } from '../infusion.ts';
import { liveClockOf, priorOf, type BagReading } from '../live-clock.ts';
import { reforecast, type Reforecast } from '../reforecast.ts';
import { frontAt, type SolvedShape } from '../problem-shapes.ts';
import { solvedOnce } from './solved-once.ts';

export const shop = demoShop;
export const demo = (name: string): LaidJob => laidOut(demoJobs.find((job) => job.name === name)!);

const kerb = demo('Footbridge kerb plate');
/** A flat plate fed along one end, averaged through its thickness: quick to solve. */
export const plate: LaidJob = {
  ...kerb,
  part: { ...kerb.part, rise: null },
  forecast: { ...kerb.forecast, layers: false, soft: false },
};
export const fineness = { nodeCount: 200, steps: 30 };

/** The ways in which the plate may be, solved once. */
export const plateShapes = (): SolvedShape[] => solvedOnce(plate, shop, fineness);

const START = Date.parse('2026-03-14T09:00:00Z');
/** Entries at seconds since first contact. */
export function logOf(bodies: readonly (readonly [number, EntryBody])[]): Entry[] {
  return bodies.map(([at, body], n): Entry => {
    const time = new Date(START + 1000 * at).toISOString();
    return {
      id: `e${n}`,
      at: time,
      writtenAt: time,
      by: 'Ada',
      device: 'tablet',
      runId: 'r',
      order: n,
      body,
    };
  });
}

/** The plate with its feed open as planned, and whatever else was said. */
export function under(
  bodies: readonly (readonly [number, EntryBody])[],
  readings: readonly BagReading[] = [],
) {
  const { openTime } = runConditionsOf(plate, shop)!;
  const entries = logOf([
    [0, { kind: 'mixed', mass: null }],
    [openTime, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    ...bodies,
  ]);
  const state = runStateOf(entries);
  const infusion = infusionOf(state, plate);
  const clock = liveClockOf(plate, shop, infusion, state, readings)!;
  const answer = (now: number): Reforecast =>
    reforecast({ shapes: plateShapes(), infusion, clock, prior: priorOf(plate, clock), gelDoubt: 1.15, now });
  return { entries, state, infusion, clock, answer };
}

/** When the front of a shape is at a place with everything so many times better, s since first contact. */
export function minuteAt(shape: SolvedShape, place: { x: number; y: number }, factor = 1): number {
  const run = runConditionsOf(plate, shop)!;
  return clockOf(run).timeAtFluidity({ from: run.openTime, fluidity: frontAt(shape, place) / factor });
}

export const frontMark = (
  shape: SolvedShape,
  x: number,
  y: number,
  factor = 1,
): readonly [number, EntryBody] => [
  minuteAt(shape, { x, y }, factor),
  { kind: 'front', markId: null, x, y, doubt: 0.01 },
];
