import type { JobLayer, LayerCovers } from '@wick/contract/job/stack';
import { nearestOnLine, straightenedRing } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import {
  intersect,
  offset,
  regionArea,
  strip,
  subtract,
  unite,
  type Region,
} from '@wick/core/geometry/overlay';
import type { PartShape } from '@wick/core/layouts/frame';
import type { Point } from '@wick/core/geometry/polygon';
import { roundPoint } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { inletOf } from '../layout/hoses.ts';
import { ofKind, samplesOf } from '../layout/lines.ts';
import { partPatch } from '../part/patch.ts';
import { remembering } from '../remembering.ts';

/** A feed so near to the edge all along lies along it, m. */
const ALONG_EDGE = 0.06;
/** How far beside a feed its own end of a layer reaches, m. */
const BESIDE_FEED = 0.05;
/** Nobody cuts more exactly, m. */
const TOLERANCE = 2e-3;
/** Scraps smaller than this are not laid, m2. */
const SCRAP = 1e-4;

/** Where a layer lies on the plan, past the part's edge too; zones on which it is left off are not cut out. */
export const regionOf = (job: LaidJob, layer: JobLayer): Region =>
  lain(whatItHangsOn(job, layer), () => covered(job, layer.covers));

/** All that decides where a layer lies. */
export function whatItHangsOn({ part, lines }: LaidJob, { covers }: JobLayer): object[] {
  const isMeant = ({ kind }: LaidJob['lines'][number]) => {
    if (covers.kind === 'part')
      return (kind === 'vent' && covers.vent !== null) || (kind === 'feed' && covers.feed !== null);
    return covers.kind === 'lines' || covers.kind === 'ports';
  };
  return [part.outline, part.holes, covers, ...lines.filter(isMeant).map((line) => whereOf(line, covers))];
}

/** With a hose's place on it where that counts. */
const whereOf = (line: LaidJob['lines'][number], { kind }: LayerCovers): object =>
  kind === 'ports' ? line : line.points;

const lain = remembering<Region>();
const lainOnPart = remembering<PartShape[] | null>();

function covered(job: LaidJob, covers: LayerCovers): Region {
  const part: Region = [partPatch(job.part)];
  switch (covers.kind) {
    case 'part':
      return onPart(job, part, covers);
    case 'areas':
      // Drawn roughly over the part's edge, it is cut there.
      return intersect(
        covers.areas.reduce<Region>((sum, area) => unite(sum, [area]), []),
        part,
      );
    case 'lines':
      return strips(
        job.lines.filter(({ kind }) => kind !== 'race' && (covers.of === 'both' || kind === covers.of)),
        covers.width / 2,
      );
    case 'ports':
      return portsOf(job).reduce<Region>((sum, at) => unite(sum, strip([at], covers.width / 2)), []);
    case 'rim': {
      const plain: Region = [{ ...part[0]!, holes: [] }];
      return subtract(offset(plain, covers.to), offset(plain, covers.from));
    }
  }
}

/** Where hoses come through the bag: at the place where each joins its line. */
export const portsOf = (job: Pick<LaidJob, 'lines'>): Point[] =>
  job.lines.filter(({ kind }) => kind !== 'race').map(inletOf);

const strips = (lines: readonly Pick<LaidJob['lines'][number], 'points'>[], distance: number): Region =>
  lines.reduce<Region>((sum, { points }) => unite(sum, strip(points, distance)), []);

function onPart(job: LaidJob, part: Region, { edge, feed, vent }: LayerCovers & { kind: 'part' }): Region {
  let region = offset(part, edge);
  if (feed !== null && feed !== edge) {
    const near = strips(
      feedsAlongEdge(job, part[0]!),
      Math.max(Math.abs(edge), Math.abs(feed)) + BESIDE_FEED,
    );
    if (near.length > 0)
      region =
        feed > edge
          ? unite(region, intersect(offset(part, feed), near))
          : subtract(region, subtract(near, offset(part, feed)));
  }
  return vent === null || vent === 0 ? region : subtract(region, strips(ofKind(job, 'vent'), vent));
}

/** Feeds that lie along the part's edge, where a layer may end otherwise than elsewhere. */
const feedsAlongEdge = (job: Pick<LaidJob, 'lines'>, part: PartShape) => {
  const edge = [...part.outline, part.outline[0]!];
  return ofKind(job, 'feed').filter((line) =>
    samplesOf(line).every((p) => nearestOnLine(p, edge).distance < ALONG_EDGE),
  );
};

/** Patches of the part on which a layer lies; null where it lies on all of it. */
export const patchesOn = (job: LaidJob, layer: JobLayer): PartShape[] | null =>
  lainOnPart(whatItHangsOn(job, layer), () => patchesOf(job, layer));

function patchesOf(job: LaidJob, layer: JobLayer): PartShape[] | null {
  const { covers } = layer;
  // Drawn areas are taken as they were drawn.
  if (covers.kind === 'areas') return covers.areas.map(({ outline, holes }) => ({ outline, holes }));
  if (covers.kind === 'part' && liesOnAll(job, covers)) return null;
  return plainPatches(intersect(regionOf(job, layer), [partPatch(job.part)]));
}

function liesOnAll(job: LaidJob, { edge, feed, vent }: LayerCovers & { kind: 'part' }): boolean {
  const reaches = edge >= 0 && (feed === null || feed >= 0);
  return reaches && (!vent || ofKind(job, 'vent').length === 0);
}

/** Patches with as few corners as anybody cuts them by. */
export function plainPatches(region: Region): PartShape[] {
  const plain = (ring: readonly Point[]) => straightenedRing(polygonOf(ring), TOLERANCE).map(roundPoint);
  return region
    .filter((patch) => regionArea([patch]) > SCRAP)
    .map(({ outline, holes }) => ({ outline: plain(outline), holes: holes.map(plain) }));
}
