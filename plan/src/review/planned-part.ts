import type { Shop } from '@wick/contract/shop';
import { orNull } from '@wick/core/model-error';
import { polygonOf } from '@wick/core/geometry/arcs';
import { contains, type Point } from '@wick/core/geometry/polygon';
import type { Densities } from '@wick/core/laminate/fibre-fraction';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { scatterOf } from '../forecast/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf, stackOfBook, type Book } from '../laminate/books.ts';
import { partSums } from '../laminate/ply-book.ts';
import { settledIn } from '../settle.ts';

/** A part as its plan has it, out of the mould and trimmed to its outline. Masses kg. */
export interface PlannedPart {
  readonly fibre: number;
  readonly core: number;
  readonly resin: number;
  readonly mass: number;
  /** Standard deviation of the mass by how thick a laminate comes out and how heavy cloth runs, kg. */
  readonly doubt: number;
  /** Of the plies, all laminates together. */
  readonly fraction: number;
  /** Standard deviation of ln of a laminate's thickness. */
  readonly scatter: number;
  readonly densities: Densities;
  readonly at: (place: Point) => PlannedPlace | null;
}

/** The laminate at a place. Thicknesses m. */
export interface PlannedPlace {
  readonly book: Book;
  /** Plies alone, and with the core. */
  readonly plies: number;
  readonly thickness: number;
  readonly fraction: number;
  /** Shares of the plies' thickness, by material. */
  readonly shares: ReadonlyMap<string, number>;
}

/** Standard deviation of areal weight, as a share. Common practice, no source. */
const CLOTH = 0.03;
/** Density of glass, for fibres nobody has named, kg/m3. */
const USUAL_FIBRE = 2550;

/** @returns null where the laminate does not tell yet */
export function plannedPartOf(job: LaidJob, shop: Shop): PlannedPart | null {
  const sums = orNull(() => partSums(job, shop));
  if (!sums || sums.fibre === 0) return null;
  const density = settledIn(job, 'resin.density');
  const scatter = Math.log(scatterOf(job).thickness) / NINE_IN_TEN;
  const volumes = fibreVolumes(job, sums.fibre);
  const plies = volumes + sums.resinInPlies + sums.resinAsItOpens;
  const resin = density * (sums.resinInPlies + sums.resinAsItOpens + sums.resinInCore);
  const books = booksOf(job);
  const zones = job.zones.map(({ outline }) => polygonOf(outline));
  const [outline, holes] = [
    polygonOf(job.part.outline),
    job.part.holes.map((hole) => polygonOf(hole.outline)),
  ];
  return {
    ...{ fibre: sums.fibre, core: sums.core, resin, scatter },
    mass: sums.fibre + sums.core + resin,
    doubt: Math.hypot(CLOTH * sums.fibre, density * plies * scatter),
    fraction: volumes / plies,
    densities: { fibre: sums.fibre / volumes, resin: density },
    at(place) {
      if (!contains(outline, place) || holes.some((hole) => contains(hole, place))) return null;
      // Later zones lie over earlier ones; the base is the first of the books.
      return placeOf(job, shop, books[1 + zones.findLastIndex((zone) => contains(zone, place))]!);
    },
  };
}

/** Of all fibre, m3: cloth of several kinds counts by what each weighs. */
function fibreVolumes(job: LaidJob, fibre: number): number {
  let [mass, volume] = [0, 0];
  for (const { laminate } of booksOf(job))
    for (const { materialId } of laminate.plies) {
      const fabric = materialOf(job, materialId, 'fabric');
      mass += fabric?.arealWeight ?? 0;
      volume += fabric ? fabric.arealWeight / fabric.fibreDensity : 0;
    }
  return mass > 0 ? (fibre * volume) / mass : fibre / USUAL_FIBRE;
}

function placeOf(job: LaidJob, shop: Shop, book: Book): PlannedPlace | null {
  if (book.laminate.plies.length === 0) return null;
  const stack = orNull(() => stackOfBook(job, book, shop));
  if (!stack) return null;
  const shares = new Map<string, number>();
  book.laminate.plies.forEach(({ materialId }, i) =>
    shares.set(
      materialId,
      (shares.get(materialId) ?? 0) + stack.plies[i]!.thickness / stack.laminateThickness,
    ),
  );
  return {
    ...{ book, shares, thickness: stack.thickness, plies: stack.laminateThickness },
    fraction: stack.fibreVolumeFraction,
  };
}
