import type { JobFeature, JobLine } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import {
  filmLacking,
  filmRadius,
  lockedRadius,
  pocketArea,
  pocketGap,
  reaches,
} from '@wick/core/bag/bridging';
import { RIGHT_ANGLE } from '@wick/core/bag/section';
import { apart } from '@wick/core/geometry/along';
import { lineLength, type Point } from '@wick/core/geometry/polygon';
import type { Edit } from '../job/edits.ts';
import { newId } from '../job/ids.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { availablePressure } from '../laminate/stack.ts';
import { addLine, bareLine } from '../layout/edits.ts';
import { layersOf } from '../stack/lies.ts';

/** An inside corner as bag and plies see it. */
export interface Bridge {
  readonly featureId: string;
  readonly name: string;
  readonly points: readonly Point[];
  readonly radius: number;
  /** Radius on which the film spans it, m; null where the film's strength is not known. */
  readonly film: number | null;
  /** Film that lacks to lie in it without slack, m; and whether it stretches so far. */
  readonly lacking: number | null;
  readonly stretches: boolean;
  /** Radius below which plies pressed on the wall stay locked, m. */
  readonly locked: number;
  /** Radius that spans it if nobody presses it in, m. */
  readonly spanned: number;
  /** Resin that gathers behind it then, m3, and the gap that it races in, m. */
  readonly pocket: number;
  readonly gap: number;
  /** Another corner so near that pressing one lifts the other. */
  readonly pairedWith: string | null;
  /** What to do, the first first. */
  readonly todo: readonly string[];
}

/** Of dry fabric on a mould; common practice, no source. */
const FRICTION = 0.3;

/** Inside corners, and the feet of rises and steps, ranked by the resin that would gather behind them. */
export function bridgesOf(job: LaidJob, shop: Shop): Bridge[] {
  const corners = job.part.features.filter(({ height }) => height > 0);
  const [layer] = layersOf(job, 'bag');
  const bag = materialOf(job, layer?.materialId ?? null, 'film');
  const film =
    bag?.strength && bag.elongation
      ? { thickness: bag.thickness, strength: bag.strength, elongation: bag.elongation }
      : null;
  const pressure = availablePressure(job, shop);
  return corners
    .map((feature): Bridge => {
      const corner = { radius: feature.radius, turn: feature.angle ?? RIGHT_ANGLE };
      const onFilm = film && filmRadius(film, pressure);
      const locked = lockedRadius(FRICTION, feature.height);
      const spanned = Math.max(onFilm ?? 0, feature.radius < locked ? locked : 0);
      const lacking = onFilm === null ? null : filmLacking(corner, onFilm);
      const stretches = film === null || onFilm === null || reaches(film, corner, onFilm, feature.height);
      const pair = pairOf(feature, corners);
      return {
        ...{ featureId: feature.id, name: feature.name, points: feature.points, radius: feature.radius },
        ...{ film: onFilm, lacking, stretches, locked, spanned },
        pocket: pocketArea(corner, spanned) * lineLength(feature.points),
        gap: pocketGap(corner, spanned),
        pairedWith: pair?.name ?? null,
        todo: whatToDo({ feature, locked, spanned, lacking, stretches, pair }),
      };
    })
    .filter(({ spanned, radius }) => spanned > radius)
    .sort((a, b) => b.pocket - a.pocket);
}

/** Plies between two corners hold on neither where the way between them is too short to lock them: pressing one lifts the other. */
export function pairOf(feature: JobFeature, all: readonly JobFeature[]): JobFeature | null {
  const near = all.filter(
    (other) =>
      other.id !== feature.id &&
      runBeside(feature.points, other.points) &&
      apart(feature.points, other.points) < Math.max(feature.radius, other.radius) / FRICTION,
  );
  return near[0] ?? null;
}

/** Nearly parallel: corners that meet at an angle do not feed from each other. */
const PARALLEL = Math.cos(Math.PI / 6);
function runBeside(a: readonly Point[], b: readonly Point[]): boolean {
  const way = (points: readonly Point[]) => {
    const [from, to] = [points[0]!, points[points.length - 1]!];
    const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
  };
  const [u, v] = [way(a), way(b)];
  return Math.abs(u.x * v.x + u.y * v.y) > PARALLEL;
}

function whatToDo(of: {
  feature: JobFeature;
  locked: number;
  spanned: number;
  lacking: number | null;
  stretches: boolean;
  pair: JobFeature | null;
}): string[] {
  const { feature, locked, spanned, lacking, stretches, pair } = of;
  const mm = (value: number) => `${Math.ceil(1e3 * value)} mm`;
  return [
    ...(pair
      ? [`Press it and ${pair.name} in together, from the middle outward: pressing one lifts the other.`]
      : []),
    ...(feature.radius < locked
      ? ['Press the plies in before pulling: on the wall they do not slip any more.']
      : []),
    ...(lacking !== null && lacking > 0 ? [`Leave ${mm(lacking)} of slack in the film along it.`] : []),
    ...(stretches ? [] : ['Without slack the film would have to stretch too far.']),
    `A fillet of ${mm(spanned)}, or a relief cut in the plies, ends it for good.`,
  ];
}

/** What the race is called that stands for a corner's pocket. */
export const pocketName = ({ name }: Pick<Bridge, 'name'>): string => `Pocket at ${name}`.slice(0, 40);

/** The pocket of a corner as a channel in which resin races, in the layout that is worked on. */
export const asRace = (
  { name, points, gap }: Pick<Bridge, 'name' | 'points' | 'gap'>,
  id: string = newId(),
): Edit => {
  const race: JobLine = {
    ...bareLine('race', points, id),
    name: pocketName({ name }),
    bore: Math.max(1e-4, gap),
  };
  return addLine(race);
};
