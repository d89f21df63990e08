import type { JobPly } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { intersect, regionArea, subtract, type Region } from '@wick/core/geometry/overlay';
import { plyRegion, type PlyCut } from '@wick/core/kit/cut-pieces';
import type { LaidJob } from '../job/laid.ts';
import { processOf } from '../processes/processes.ts';
import { partArea } from '../part/figures.ts';
import { partPatch } from '../part/patch.ts';
import { remembering } from '../remembering.ts';
import { resinInLayers } from '../stack/uptake.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf, stackOfBook } from './books.ts';
import { patchOf, regionsOf } from './regions.ts';
import { isThrough } from './through.ts';

interface LaidPly {
  readonly ply: JobPly;
  /** Index into booksOf. */
  readonly book: number;
}

/**
 * All plies in the order in which they are laid: the base's, and each zone's own after the ply that runs through it beneath
 * them; those of a zone in which nothing runs through come last.
 */
export function layOrder(job: LaidJob): LaidPly[] {
  const after = new Map<string | null, LaidPly[]>();
  const last: LaidPly[] = [];
  job.zones.forEach(({ laminate }, n) => {
    const hasThrough = laminate.plies.some(isThrough);
    let beneath: string | null = null;
    for (const ply of laminate.plies) {
      if (isThrough(ply)) beneath = ply.through;
      else if (!hasThrough) last.push({ ply, book: n + 1 });
      else after.set(beneath, [...(after.get(beneath) ?? []), { ply, book: n + 1 }]);
    }
  });
  return [
    ...(after.get(null) ?? []),
    ...job.laminate.plies.flatMap((ply) => [{ ply, book: 0 }, ...(after.get(ply.id) ?? [])]),
    ...last,
  ];
}

/** Every ply as it is to be cut, in lay order. */
export function plyCutsOf(job: LaidJob): (PlyCut & { readonly plyId: string; readonly book: number })[] {
  const part = partPatch(job.part);
  const zones = job.zones.map(({ outline }) => patchOf(outline));
  const books = booksOf(job);
  /** Plies of one book, drawn in alike and running on alike, lie alike: of hundreds there are a few kinds. */
  const known = new Map<string, Region>();
  function regionOf({ ply, book }: LaidPly): Region {
    const later = zones.map((zone, n) => ({ zone, n: n + 1 })).filter(({ n }) => n > book);
    const runsOn = ({ n }: { n: number }) => book === 0 && books[n]!.through.has(ply.id);
    const kind = [book, ply.inset, ...later.map(runsOn)].join(' ');
    const found = known.get(kind);
    if (found) return found;
    const cutAway = later
      .filter((zone) => !runsOn(zone))
      .map(({ zone, n }) =>
        later
          .filter((over) => over.n > n && runsOn(over))
          .reduce((left, over) => subtract(left, over.zone), zone),
      );
    const own = book === 0 ? [part] : zones[book - 1]!;
    const made = plyRegion({ part, own, inset: ply.inset, cutAway });
    known.set(kind, made);
    return made;
  }
  return layOrder(job).map(({ ply, book }, i) => ({
    order: i + 1,
    name: materialOf(job, ply.materialId, 'fabric')?.name ?? ply.materialId,
    materialId: ply.materialId,
    angle: ply.angle,
    region: regionOf({ ply, book }),
    plyId: ply.id,
    book,
  }));
}

/** What a part takes, zone by zone added up; masses kg, volumes m3, area m2. */
export interface PartSums {
  /** The same of each laminate, as booksOf has them; of each what lies in it alone. */
  readonly books: readonly BookSums[];
  readonly area: number;
  readonly fibre: number;
  readonly core: number;
  readonly resinInPlies: number;
  /** More of it, as the plies open up under the resin's own pressure; none where halves of a mould hold them. */
  readonly resinAsItOpens: number;
  readonly resinInConsumables: number;
  readonly resinInCore: number;
}

export interface BookSums {
  readonly zoneId: string | null;
  readonly name: string;
  readonly isBrake: boolean;
  readonly fibre: number;
  readonly core: number;
  readonly resinInPlies: number;
  readonly resinAsItOpens: number;
  readonly resinInCore: number;
}

const added = remembering<Omit<PartSums, 'area' | 'resinInConsumables'>>();

/**
 * Plies by their own areas, the rest by the area of their laminate. A laminate without plies adds nothing.
 * Errors as computeStack.
 */
export function partSums(job: LaidJob, shop: Shop): PartSums {
  const { process, part, zones, laminate, layers, materials, resin, vacuum, doubt } = job;
  const on = [{ process, resin, vacuum, doubt }, part, zones, laminate, layers, materials, shop];
  return {
    area: partArea(job.part),
    resinInConsumables: resinInLayers(job),
    ...added(on, () => sumsOf(job, shop)),
  };
}

function sumsOf(job: LaidJob, shop: Shop): Omit<PartSums, 'area' | 'resinInConsumables'> {
  const books = booksOf(job);
  const regions = regionsOf(job);
  const { pressesAll } = processOf(job);
  const drawn = new Map(plyCutsOf(job).map((cut) => [cut.plyId, cut.region]));
  const found = books.map((book, n): BookSums => {
    const { zoneId, name, isBrake } = book;
    const sums = { fibre: 0, core: 0, resinInPlies: 0, resinAsItOpens: 0, resinInCore: 0 };
    const region = regions[n]!;
    const area = regionArea(region);
    if (book.laminate.plies.length === 0 || area === 0) return { zoneId, name, isBrake, ...sums };
    const stack = stackOfBook(job, book, shop);
    const areas = new Map<Region, number>();
    const areaIn = (own: Region) => {
      const known = areas.get(own) ?? regionArea(intersect(region, own));
      areas.set(own, known);
      return known;
    };
    book.laminate.plies.forEach((ply, i) => {
      const isDrawnIn = ply.inset !== 0;
      const covered = isDrawnIn ? areaIn(drawn.get(ply.id)!) : area;
      const { thickness, fraction } = stack.plies[i]!;
      sums.fibre += covered * (materialOf(job, ply.materialId, 'fabric')?.arealWeight ?? 0);
      sums.resinInPlies += covered * thickness * (1 - fraction);
    });
    if (pressesAll) sums.resinAsItOpens = area * stack.resinAsItOpens;
    sums.core = area * stack.coreWeight;
    sums.resinInCore = area * stack.resinInCore;
    return { zoneId, name, isBrake, ...sums };
  });
  const all = (of: (own: BookSums) => number) => found.reduce((sum, own) => sum + of(own), 0);
  return {
    books: found,
    fibre: all(({ fibre }) => fibre),
    core: all(({ core }) => core),
    resinInPlies: all((own) => own.resinInPlies),
    resinAsItOpens: all((own) => own.resinAsItOpens),
    resinInCore: all((own) => own.resinInCore),
  };
}
