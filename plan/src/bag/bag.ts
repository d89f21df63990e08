import type { JobFeature } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { FILM_OVER_SURFACE, filmCut, OVER_RISE, pleatsOf, tapeLength } from '@wick/core/bag/pleats';
import { nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { offset } from '@wick/core/geometry/overlay';
import { lineLength, type Point } from '@wick/core/geometry/polygon';
import { framesOf } from '@wick/core/layouts/frame';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { partShapeOf } from '../layout/fit.ts';
import { partArea } from '../part/figures.ts';
import { layersOf, tapeBand } from '../stack/lies.ts';
import { bridgesOf, type Bridge } from './bridges.ts';
import { sectionsOf, type BagSection } from './sections.ts';

/** A pleat on the tape line: where, how high, and for what. */
export interface PlacedPleat {
  readonly place: Point;
  readonly height: number;
  readonly featureId: string;
  readonly name: string;
}

/** The film to cut: along the part's longer side, and across. */
export interface FilmBlank {
  readonly length: number;
  readonly width: number;
  /** Area over that of the part; 1.3 to 1.4 is usual. */
  readonly overSurface: number;
  readonly usual: readonly [number, number];
  /** Of the film chosen; null where none is, or its roll is not known. */
  readonly rollWidth: number | null;
  /** Which side runs along the roll, and how many joins it takes. */
  readonly alongRoll: 'length' | 'width';
  readonly joins: number;
}

export interface Bag {
  readonly sections: readonly BagSection[];
  /** Middle of the tape, closed; empty where no tape is laid. */
  readonly tapeLine: readonly Point[];
  readonly pleats: readonly PlacedPleat[];
  /** m of sealant tape, pleats included. */
  readonly tape: number;
  readonly film: FilmBlank;
  readonly bridges: readonly Bridge[];
  /** In what order to draw the bag down, a step each. */
  readonly pullDown: readonly string[];
}

/** Left loose over the developed length, m: common practice, no source. */
const SLACK = 0.03;
/** Film that is grasped beyond the tape, m. */
const GRIP = 0.03;

/** The bag of a job: what it measures, where it is pleated, and where it bridges. */
export function bagOf(job: LaidJob, shop: Shop): Bag {
  const sections = sectionsOf(job);
  const band = tapeBand(job);
  const middle = band ? (band.from + band.to) / 2 : 0;
  const [ring] = offset([{ outline: polygonOf(job.part.outline), holes: [] }], middle);
  const line = polygonOf(ring!.outline);
  const tapeLine = [...line, line[0]!];
  const pleats = job.part.features.flatMap((feature) => pleatsFor(feature, sections, tapeLine));
  const bridges = bridgesOf(job, shop);
  return {
    ...{ sections, pleats, bridges },
    tapeLine: band ? tapeLine : [],
    tape: band ? tapeLength(lineLength(tapeLine), pleats) : 0,
    film: blankOf(job, sections, band?.to ?? 0),
    pullDown: pullDownOf(bridges, pleats),
  };
}

/** One at either end of a rise, where the tape line passes it: as high as the section that needs most of it asks. */
function pleatsFor(
  { id, name, kind, points, height }: JobFeature,
  sections: readonly BagSection[],
  tapeLine: readonly Point[],
): PlacedPleat[] {
  if (kind === 'insideCorner' || height === 0) return [];
  const asked = sections.flatMap((section) =>
    pleatsOf(section).flatMap((pleat, n) => (section.featureIds[n] === id ? [pleat.height] : [])),
  );
  const high = Math.max(OVER_RISE * height, ...asked);
  return [points[0]!, points[points.length - 1]!].map((end) => ({
    place: nearestOnLine(end, tapeLine).point,
    ...{ height: high, featureId: id, name },
  }));
}

/** Cut for the longest section each way; the flange with its tape at both ends, a grip beyond it, and slack. */
function blankOf(job: LaidJob, sections: readonly BagSection[], tapeTo: number): FilmBlank {
  const { long, short } = framesOf(partShapeOf(job));
  const over = (isAlong: boolean) =>
    Math.max(
      0,
      ...sections
        .filter(({ points }) => isAlong === runsAlong(points, long))
        .map(({ developed, plan }) => developed - plan),
    );
  const edge = { flange: tapeTo, tape: GRIP, slack: SLACK };
  const length = filmCut(long.length + over(true), edge);
  const width = filmCut(short.length + over(false), edge);
  const [layer] = layersOf(job, 'bag');
  const rollWidth = materialOf(job, layer?.materialId ?? null, 'film')?.rollWidth ?? null;
  const acrossRoll =
    rollWidth !== null && Math.max(length, width) <= rollWidth
      ? Math.max(length, width)
      : Math.min(length, width);
  return {
    ...{ length, width, rollWidth },
    overSurface: (length * width) / partArea(job.part),
    usual: FILM_OVER_SURFACE,
    alongRoll: acrossRoll === width ? 'length' : 'width',
    joins: rollWidth === null ? 0 : Math.max(0, Math.ceil(acrossRoll / rollWidth - 1e-9) - 1),
  };
}

function runsAlong(
  points: readonly Point[],
  long: { along(p: Point): number; across(p: Point): number },
): boolean {
  const [a, b] = [points[0]!, points[points.length - 1]!];
  return Math.abs(long.along(b) - long.along(a)) >= Math.abs(long.across(b) - long.across(a));
}

/** Common practice, no source. */
function pullDownOf(bridges: readonly Bridge[], pleats: readonly PlacedPleat[]): string[] {
  const corners = bridges.map(({ name }) => name);
  return [
    'Feed open, pull until the film just lies on: about a tenth of the vacuum.',
    ...(pleats.length > 0 ? ['Stand every pleat up and see that its foot is sealed.'] : []),
    ...(corners.length > 0
      ? [
          `Press plies and film into ${listed(corners)}, in this order; let go and begin again where it spans.`,
        ]
      : []),
    'Pull to half, move the film once more over every rise, listen.',
    'Pull to the end, clamp the feed, begin the leak check.',
  ];
}

const listed = (names: readonly string[]) =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
