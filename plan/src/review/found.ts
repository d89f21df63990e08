import type { EntryBody } from '@wick/contract/run/run';
import type { FindingKind } from '@wick/contract/run/review-bodies';
import type { Shop } from '@wick/contract/shop';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import type { Mesh } from '@wick/core/geometry/mesh';
import { placeOf } from '@wick/core/geometry/mesh-places';
import type { Point } from '@wick/core/geometry/polygon';
import { createRandom, normalOf, type Random } from '@wick/core/random';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { scatterOf } from '../forecast/doubt.ts';
import { racingSides } from '../forecast/draw.ts';
import type { PartSeen, PartTruth } from '../infusion/part-world.ts';
import type { DrawnFault } from '../infusion/truth.ts';
import type { LaidJob } from '../job/laid.ts';
import { partArea } from '../part/figures.ts';
import { airBudgetOf } from '../vacuum/air.ts';
import { plannedPartOf } from './planned-part.ts';

/** What happened to a part after its fill, or before it at the scale. */
export type AfterFault =
  /** Share of its resin that was pressed out. */
  | { readonly kind: 'starved'; readonly share: number }
  /** Hardener, of what was wanted. */
  | { readonly kind: 'wrongRatio'; readonly share: number };

/** A part as it came off the mould: what the engine had of it in the end. */
export interface CameOff {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly seed: number;
  readonly faults: readonly (DrawnFault | AfterFault)[];
  readonly seen: PartSeen;
  readonly truth: PartTruth;
  /** s since first contact */
  readonly openTime: number;
}

/** Below this a node counts as dry: what lies right at the front is wet by the time anybody looks. */
const WET = 0.5;
/** Share of the part below which nobody sees a dry place. */
const SEEN = 0.003;
/** Voids from which pinholes show, and from which it stays dry in places. */
const SHOWS = 0.008;
const PATCHES = 0.06;
/** m: an inside corner that is bridged keeps so much resin beside the fibre. */
const BRIDGED = 0.012;
/** Chances that what is there is seen, and weighed or gauged; and that something is found that means nothing. */
const SEES = 0.92;
const WEIGHS = 0.85;
const GAUGES = 0.6;
const MEANS_NOTHING = 0.07;

/**
 * What somebody would find, weigh and gauge on a part, as the physics of its fill left it: dry nodes, air let in a leak's own
 * throughput, resin that is missing or too much. Not everything is seen, and some of what is seen means nothing.
 * The same seed finds the same. Checked by causes.test.ts.
 */
export function foundOn(part: CameOff): EntryBody[] {
  const random = createRandom(part.seed ^ 0x3c6ef372);
  const voids = voidsOf(part);
  const has = (chance: number) => random() < chance;
  return [
    ...dryPlaces(part, has),
    ...(voids > SHOWS && has(SEES) ? [pinholes(part, has(0.5) ? 'fan' : 'even', random)] : []),
    ...(voids > PATCHES && has(SEES) ? [1, 2, 3].map(() => spot(part, 'drySpot', random)) : []),
    ...corners(part, has),
    ...afterwards(part, has, random),
    ...(has(MEANS_NOTHING) ? [pinholes(part, 'even', random)] : []),
    ...(has(MEANS_NOTHING) ? [spot(part, 'print', random)] : []),
    ...weights(part, voids, has, random),
    ...(has(SEES) ? [{ kind: 'potLeft', mass: part.seen.pot } as const] : []),
  ];
}

const finding = (
  is: FindingKind,
  path: readonly Point[],
  more: { size?: number | null; pattern?: 'even' | 'fan' | 'line' | 'scattered' | null } = {},
): EntryBody => ({
  ...{ kind: 'finding', is, side: 'mould', form: path.length > 1 ? 'line' : 'pin', path: [...path] },
  ...{ size: more.size ?? null, pattern: more.pattern ?? null, photoIds: [], note: '' },
});

/** Nodes on the bag side that are not wet, as one place or, far apart, as two. */
function dryPlaces({ job, seen }: CameOff, has: (chance: number) => boolean): EntryBody[] {
  const { front, mesh } = seen;
  if (!front || !mesh) return [];
  const dry = Array.from(front.keys()).filter((i) => front[i]! < WET);
  const area = (dry.length / front.length) * partArea(job.part);
  if (dry.length / front.length < SEEN || !has(SEES)) return [];
  return [finding('drySpot', [middleOf(mesh, dry)], { size: Math.sqrt((4 * area) / Math.PI) })];
}

/** The dry node that lies most in the midst of them: a middle of all may lie on wet laminate. */
function middleOf(mesh: Mesh, nodes: readonly number[]): Point {
  const places = nodes.map((i) => placeOf(mesh, i));
  const mean = {
    x: places.reduce((sum, { x }) => sum + x, 0) / places.length,
    y: places.reduce((sum, { y }) => sum + y, 0) / places.length,
  };
  const off = (place: Point) => Math.hypot(place.x - mean.x, place.y - mean.y);
  return places.reduce((best, one) => (off(one) < off(best) ? one : best));
}

/** Void fraction by what the leak let in from when it opened to gel: phi = f Q t / (p_r V). */
function voidsOf({ job, shop, faults, truth, openTime }: CameOff): number {
  const leak = faults.find((fault) => fault.kind === 'leak');
  const budget = airBudgetOf(job, shop, { fillTime: null, gelTime: null });
  if (!leak || !budget) return 0;
  const end = Number.isNaN(truth.filledAt) ? truth.gelTime : truth.filledAt;
  const open = Math.max(0, truth.gelTime - openTime - leak.at * (end - openTime));
  const throughput = leak.amount * mostThroughput(budget);
  const { share, resinPressure, resinVolume } = budget;
  return Math.min(0.3, (share * throughput * open) / (resinPressure * resinVolume));
}

function corners({ job, faults }: CameOff, has: (chance: number) => boolean): EntryBody[] {
  const bridge = faults.find((fault) => fault.kind === 'bridge');
  if (!bridge || !has(SEES)) return [];
  const side = racingSides(job)[bridge.side]!;
  return [finding(has(0.55) ? 'bridge' : 'richCorner', side.slice(0, 200), { pattern: 'line' })];
}

function afterwards({ job, faults }: CameOff, has: (chance: number) => boolean, random: Random): EntryBody[] {
  const starved = faults.find((fault) => fault.kind === 'starved');
  const ratio = faults.find((fault) => fault.kind === 'wrongRatio');
  const out: EntryBody[] = [];
  if (starved && has(0.6)) out.push(finding('drySpot', [somewhere(job, random)], { pattern: 'scattered' }));
  if (ratio && has(SEES)) out.push(finding('soft', [somewhere(job, random)]));
  return out;
}

/** By mass: what is not wet has no resin, what leaked has less, a bridge keeps more, and what was pressed out is gone. */
function weights(
  { job, shop, faults, truth, seed }: CameOff,
  voids: number,
  has: (chance: number) => boolean,
  random: Random,
): EntryBody[] {
  const planned = plannedPartOf(job, shop);
  if (!planned) return [];
  const scatter = createRandom(seed ^ 0x1b56c4e9);
  const thicker = Math.exp((Math.log(scatterOf(job).thickness) / NINE_IN_TEN) * normalOf(scatter));
  const starved = faults.find((fault) => fault.kind === 'starved')?.share ?? 0;
  const bridge = faults.find((fault) => fault.kind === 'bridge');
  const side = bridge ? racingSides(job)[bridge.side]! : [];
  const length = side.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - side[i]!.x, p.y - side[i]!.y), 0);
  const volume = planned.resin / planned.densities.resin;
  const plies = planned.fibre / planned.densities.fibre + volume;
  const opened = (thicker - 1) * plies;
  const kept = (1 - starved) * (volume + opened) * (1 - voids) * truth.filledShare;
  const pocket = (1 - Math.PI / 4) * BRIDGED ** 2 * length;
  const mass =
    1.02 ** normalOf(random) * planned.fibre + planned.core + planned.densities.resin * (kept + pocket);
  const gauged = (x: number, y: number): EntryBody[] => {
    const place = planned.at({ x, y });
    if (!place) return [];
    // Fibres press no closer than they pack; beyond that it is air that took the resin's place.
    const pressed = Math.max(0.8, 1 - 0.7 * starved);
    const thickness =
      place.thickness - place.plies + place.plies * thicker * pressed * (1 + 0.01 * normalOf(random));
    return [{ kind: 'gauged', x, y, thickness }];
  };
  const [a, b] = [somewhere(job, random), somewhere(job, random)];
  return [
    ...(has(WEIGHS)
      ? [{ kind: 'weighed', what: 'part', mass, flange: 'off', isTrimmed: true } as const]
      : []),
    ...(has(GAUGES) ? [...gauged(a.x, a.y), ...gauged(b.x, b.y)] : []),
  ];
}

const spot = ({ job }: CameOff, is: FindingKind, random: Random) => finding(is, [somewhere(job, random)]);
const pinholes = ({ job }: CameOff, pattern: 'even' | 'fan', random: Random) =>
  finding('pinholes', [somewhere(job, random)], { pattern });

/** A place between corners of the outline: for a convex part it lies on it. */
function somewhere({ part }: LaidJob, random: Random): Point {
  const corners = part.outline;
  const weights = corners.map(() => 0.1 + random());
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return {
    x: corners.reduce((sum, { x }, i) => sum + x * weights[i]!, 0) / total,
    y: corners.reduce((sum, { y }, i) => sum + y * weights[i]!, 0) / total,
  };
}
