import { leakKinds, type LeakKind, type Mould } from '@wick/contract/mould';
import type { Shop } from '@wick/contract/shop';
import { between, nearestOnLine, pointAlong } from '@wick/core/geometry/along';
import { distance, type Point } from '@wick/core/geometry/polygon';
import { sidesOf } from '@wick/core/geometry/sides';
import { bagOf } from '../bag/bag.ts';
import type { LaidJob } from '../job/laid.ts';
import { hoseRunsOf, inletOf } from '../layout/hoses.ts';
import { isThin, openLeaks } from '../mould/words.ts';
import { layersOf, shareCovered } from '../stack/lies.ts';
import { potOf } from './free-volume.ts';

/** Where a bag may leak. */
export interface LeakPlace {
  /** The same for the same place of the same plan. */
  readonly id: string;
  readonly kind: LeakKind;
  readonly name: string;
  /** On the plan; null where it is somewhere along or off it. */
  readonly at: Point | null;
  readonly why: string;
  /** That it leaks, before anybody has looked. */
  readonly chance: number;
  /** The line behind whose clamp it lies; null where no clamp shuts it off. */
  readonly lineId: string | null;
}

interface Kind {
  readonly name: string;
  /** That one such place leaks on a new bag: common practice gives the order, no source gives numbers. */
  readonly usual: number;
  readonly why: string;
}

export const kindsOfPlace: Readonly<Record<LeakKind, Kind>> = {
  pleat: { name: 'Foot of a pleat', usual: 0.08, why: 'tape is folded there; press both feet' },
  tapeCorner: {
    name: 'Tape at a corner',
    usual: 0.06,
    why: 'two ends of tape lap; see that no paper is left between',
  },
  port: { name: 'Hose through the bag', usual: 0.05, why: 'a punched hole and a fitting' },
  mesh: { name: 'Mesh under the film', usual: 0.03, why: 'hard ends press through the film over a rise' },
  strand: { name: 'Tape beside the plies', usual: 0.03, why: 'a strand across the tape leads air in' },
  join: { name: 'Join of the film', usual: 0.06, why: 'two films on one tape' },
  hose: { name: 'Joint of a hose', usual: 0.03, why: 'clamp, tee, worn hose end' },
  pot: { name: 'Lid of the catch pot', usual: 0.05, why: 'seal, sight glass, gauge thread' },
  mould: { name: 'The mould itself', usual: 0.02, why: 'a porous laminate or flange' },
};

/** Corners nearer to each other than this are one, m. */
const NEAR = 0.03;
/** Plies so near to the tape send strands across it, m. */
const STRANDS = 0.05;
/** Of a mould that lets air through. */
const THIN_CHANCE = 0.25;
/** A leak of this mould that nobody has marked as mended. */
const OPEN_CHANCE = 0.7;

/**
 * Places of the leak walk, the likeliest first.
 * @param mould its record, where the job is made on one
 */
export function leakPlacesOf(job: LaidJob, shop: Shop, mould: Mould | null): LeakPlace[] {
  const bag = bagOf(job, shop);
  const { tapeLine } = bag;
  const found: Omit<LeakPlace, 'chance'>[] = [];
  const add = (
    kind: LeakKind,
    id: string,
    name: string,
    at: Point | null,
    lineId: string | null = null,
    why = kindsOfPlace[kind].why,
  ) => found.push({ kind, id: `${kind}:${id}`, name, at, why, lineId });

  bag.pleats.forEach(({ featureId, name, place }, n) =>
    add('pleat', `${featureId}:${n % 2}`, `Pleat ${n + 1}, ${name}`, place),
  );
  cornersOf(tapeLine).forEach((at, n) => add('tapeCorner', `${n + 1}`, `Tape corner ${n + 1}`, at));
  const patched = layersOf(job, 'bag').length > 0 && job.layers.some(({ covers }) => covers.kind === 'ports');
  for (const line of job.lines)
    if (line.kind !== 'race')
      add(
        'port',
        line.id,
        `Hose of ${line.name}`,
        inletOf(line),
        null,
        patched
          ? 'a punched hole and a fitting, with a patch under it'
          : 'a punched hole and a fitting, nothing laid under it',
      );
  const meshes = layersOf(job, 'flowMesh');
  for (const { id, name, points, kind } of job.part.features)
    if (kind !== 'insideCorner' && meshes.some((mesh) => shareCovered(job, mesh, points) > 0.1))
      add('mesh', id, `Mesh over ${name}`, pointAlong(points, 0.5));
  for (const [n, at] of strandsOf(job, tapeLine).entries())
    add('strand', `${n + 1}`, `Tape beside ply edges ${n + 1}`, at);
  for (let n = 0; n < bag.film.joins; n++) add('join', `${n + 1}`, `Join ${n + 1} of the film`, null);
  for (const run of hoseRunsOf(job))
    add(
      'hose',
      run.id,
      `Joints of the hose to ${run.name}`,
      run.from,
      job.lines.some(({ id }) => id === run.id) ? run.id : null,
    );
  if (potOf(job)) {
    const pump = job.stations.find(({ kind }) => kind === 'pump')?.place ?? null;
    const vents = job.lines.filter(({ kind }) => kind === 'vent');
    add('pot', 'catch', kindsOfPlace.pot.name, pump, vents.length === 1 ? vents[0]!.id : null);
  }
  add('mould', 'own', mould ? `${mould.name} itself` : 'The mould itself', null, null, whyOfMould(mould));

  const learned = learningOf(mould, found);
  return found.map((place) => ({ ...place, chance: learned(place) })).sort((a, b) => b.chance - a.chance);
}

function whyOfMould(mould: Mould | null): string {
  const open = mould ? openLeaks(mould.history) : [];
  if (open.length > 0) return `not marked as mended: ${open[0]!.text}`;
  if (mould && isThin(mould)) return `${mould.plies} plies of its own leak through`;
  return kindsOfPlace.mould.why;
}

/** The usual chance weighs as much as so many parts. */
const WEIGHT = 10;

/**
 * How often a place of this mould has leaked: the usual chance counts as ten parts, each part pulled from the mould as one more. A leak
 * found at the very place counts whole; half of one at another of its kind is shared among its kind.
 */
function learningOf(mould: Mould | null, places: readonly Omit<LeakPlace, 'chance'>[]) {
  const history = mould?.history ?? [];
  const pulls = history.filter(({ kind }) => kind === 'pull').length;
  const leaks = history.flatMap(({ kind, place }) => (kind === 'leak' && place ? [place] : []));
  const ofKind = new Map(
    leakKinds.map((kind) => [kind, places.filter((place) => place.kind === kind).length]),
  );
  const ownUsual = (place: Omit<LeakPlace, 'chance'>) => {
    if (place.kind !== 'mould' || !mould) return kindsOfPlace[place.kind].usual;
    if (openLeaks(history).length > 0) return OPEN_CHANCE;
    return isThin(mould) ? THIN_CHANCE : kindsOfPlace.mould.usual;
  };
  return (place: Omit<LeakPlace, 'chance'>): number => {
    const here = leaks.filter(({ id }) => id === place.id).length;
    const elsewhere = leaks.filter(({ id, kind }) => kind === place.kind && id !== place.id).length;
    const shared = elsewhere / Math.max(1, ofKind.get(place.kind)! - 1) / 2;
    const parts = Math.max(pulls, leaks.length);
    return Math.min(0.95, (WEIGHT * ownUsual(place) + here + shared) / (WEIGHT + parts));
  };
}

/** Where the tape line turns, in its own order; several turns on one corner are one. */
function cornersOf(line: readonly Point[]): Point[] {
  const ring = line.slice(0, -1);
  const turns = new Set(sidesOf(ring).map(([start]) => start));
  return ring
    .filter((p) => turns.has(p))
    .filter((p, n, all) => all.slice(0, n).every((corner) => distance(corner, p) > NEAR));
}

/** Beside the two longest stretches of tape, where plies end near to it. */
function strandsOf(job: LaidJob, tapeLine: readonly Point[]): Point[] {
  if (tapeLine.length < 3) return [];
  const edge = [...job.part.outline, job.part.outline[0]!];
  return tapeLine
    .slice(1)
    .map((to, n) => ({ from: tapeLine[n]!, to, length: distance(tapeLine[n]!, to) }))
    .sort((a, b) => b.length - a.length)
    .slice(0, 2)
    .map(({ from, to }) => between(from, to, 0.5))
    .filter((at) => nearestOnLine(at, edge).distance < STRANDS);
}

/** A clamp that parts off less than this is not worth a test. */
const WORTH = 0.1;

/**
 * The clamps by which the places still open are best halved: on one hose, or on all of them, shut at the bag.
 * @param open places that nobody has found sound
 * @returns null where no clamp parts off enough to tell anything
 */
export function bestClamp(open: readonly LeakPlace[]): { lineIds: string[]; share: number } | null {
  const sum = open.reduce((total, { chance }) => total + chance, 0);
  const lines = [...new Set(open.flatMap(({ lineId }) => (lineId === null ? [] : [lineId])))];
  const beyond = (ids: readonly string[]) =>
    open.reduce(
      (total, { lineId, chance }) => total + (lineId !== null && ids.includes(lineId) ? chance : 0),
      0,
    );
  const away = (share: number) => Math.abs(share - 0.5);
  const [best] = [...lines.map((id) => [id]), lines]
    .map((lineIds) => ({ lineIds, share: beyond(lineIds) / sum }))
    .sort((a, b) => away(a.share) - away(b.share));
  return best && best.share >= WORTH ? best : null;
}

/** Where two tests, with and without clamps, put the leak. */
export function leakIsBeyond(
  open: { readonly low: number; readonly high: number },
  clamped: { readonly low: number; readonly high: number },
): 'beyond' | 'inside' | 'open' {
  if (clamped.high < open.low / 2) return 'beyond';
  return clamped.low > open.high / 2 ? 'inside' : 'open';
}
