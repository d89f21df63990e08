import type { Shop } from '@wick/contract/shop';
import { ModelError } from '@wick/core/model-error';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf, stackOfBook } from '../laminate/books.ts';
import { settledIn } from '../settle.ts';
import { isLeftOff } from './laid-on.ts';
import { layersOf } from './lies.ts';

/** Resin by mass to fibre that plies are wetted with by hand: common practice, no source. */
const WETTED_WITH = 1;

/** What a square metre of a wet layup gives up where it gives up most, and what lies over it there holds, m. */
export interface Bleed {
  readonly bled: number;
  readonly held: number;
}

/** Null where nothing is wetted by hand, or the plies do not tell. */
export function bleedOf(job: LaidJob, shop: Shop): Bleed | null {
  if (job.process !== 'wetLayup') return null;
  const density = settledIn(job, 'resin.density');
  try {
    return booksOf(job)
      .filter(({ laminate }) => laminate.plies.length > 0)
      .map((book): Bleed => {
        const { fibreWeight, resinInPlies } = stackOfBook(job, book, shop);
        const felts = layersOf(job, 'bleeder', 'breather').filter(
          (layer) => layer.covers.kind !== 'ports' && !isLeftOff(layer, book.zoneId),
        );
        const held = felts.reduce(
          (sum, { materialId }) => sum + (materialOf(job, materialId, 'bleeder')?.resinUptake ?? 0),
          0,
        );
        return { bled: Math.max(0, (WETTED_WITH * fibreWeight) / density - resinInPlies), held };
      })
      .reduce<Bleed | null>(
        (worst, own) => (worst && worst.bled - worst.held >= own.bled - own.held ? worst : own),
        null,
      );
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}
