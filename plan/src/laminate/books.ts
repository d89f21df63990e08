import type { JobLaminate } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { checkBook, type BookCheck } from '@wick/core/laminate/ply-book';
import { computeStack, pliesUnderCore, type Stack } from '@wick/core/laminate/stack';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { laidOn } from '../stack/laid-on.ts';
import { stackRequestOf } from './stack.ts';
import { isThrough, resolvePlies } from './through.ts';

/** The base laminate or a zone's, its plies looked up: the one ply list that everything else is counted from. */
export interface Book {
  /** Null for the base. */
  readonly zoneId: string | null;
  readonly name: string;
  readonly isBrake: boolean;
  readonly laminate: JobLaminate;
  /** Ids of its plies that are the base's, running on. */
  readonly through: ReadonlySet<string>;
}

/** Base first, then the zones in their order: later ones lie over earlier ones. */
export function booksOf(job: LaidJob): Book[] {
  return [
    { zoneId: null, name: 'Base', isBrake: false, laminate: job.laminate, through: new Set() },
    ...job.zones.map((zone) => ({
      zoneId: zone.id,
      name: zone.name,
      isBrake: zone.purpose === 'brake',
      laminate: { ...zone.laminate, plies: resolvePlies(job, zone.laminate.plies) },
      through: new Set(zone.laminate.plies.filter(isThrough).map((ply) => ply.through)),
    })),
  ];
}

/** Errors as computeStack. */
export function stackOfBook(job: LaidJob, book: Book, shop: Shop): Stack {
  return computeStack(requestOfBook(job, book, shop));
}

/** Symmetry and balance of a laminate. */
export function checkOfBook(job: LaidJob, { laminate }: Book): BookCheck {
  const core = materialOf(job, laminate.coreId, 'core');
  const plies = laminate.plies.map(({ materialId, angle }) => {
    const fabric = materialOf(job, materialId, 'fabric');
    return {
      materialId,
      angle,
      arealWeight: fabric?.arealWeight ?? 0,
      directions: fabric?.directions ?? null,
    };
  });
  const under = core ? (laminate.pliesUnderCore ?? Math.floor(plies.length / 2)) : null;
  return checkBook(plies, under);
}

/** Plies under the core as it is laid. */
export const underCore = (job: LaidJob, book: Book, shop: Shop) =>
  pliesUnderCore(requestOfBook(job, book, shop));

/** With all that lies on it where coverings are not cut short. */
const requestOfBook = (job: LaidJob, { zoneId, laminate }: Book, shop: Shop) =>
  stackRequestOf(job, laminate, shop, laidOn(job, zoneId));
