import type { Shop } from '@wick/contract/shop';
import type { LaidJob } from '../job/laid.ts';
import { settledIn, type Settling } from '../settle.ts';
import { resinToMix } from './ledger.ts';
import { potsOf, type FeedPot } from './pots.ts';

/** A batch as it is mixed; times s since first mix. */
export interface SetBatch {
  /** Null of the one that stands for all where nobody has set any. */
  readonly id: string | null;
  /** Index into potsOf. */
  readonly pot: number;
  readonly mixedAt: number;
  readonly pouredAt: number;
  /** kg; 0 where nothing is left for it. */
  readonly mass: number;
  /** It takes what the others of its pot leave. */
  readonly isRest: boolean;
}

/** From the start of mixing until a batch is in the pot, s. */
export const preparationOf = (job: Settling): number =>
  settledIn(job, 'resin.mixDuration') + settledIn(job, 'resin.degasDuration');

/**
 * Every batch with its mass, in the order in which they are mixed.
 * @param totals to be poured into each pot, kg; an even share a feed of what the ledger comes to where they are not given
 * @returns none where the laminate does not tell yet how much
 */
export function batchesOf(job: LaidJob, shop: Shop, totals: readonly number[] | null = null): SetBatch[] {
  const pots = potsOf(job);
  const wanted = totals ?? evenTotals(pots, resinToMix(job, shop));
  if (!wanted) return [];
  const preparation = preparationOf(job);
  const { batches } = job.resin;
  const set =
    batches.length === 0
      ? pots.map((_, pot) => ({ id: null, pot, mixedAt: 0, mass: null }))
      : batches.map(({ stationId, ...batch }) => ({ ...batch, pot: indexOfPot(pots, stationId) }));
  return set
    .map((batch): SetBatch => {
      const isRest = batch.mass === null;
      const mass = batch.mass ?? restFor(set, batch.pot, wanted);
      return { ...batch, mass, isRest, pouredAt: batch.mixedAt + preparation };
    })
    .sort((a, b) => a.mixedAt - b.mixedAt || a.pot - b.pot);
}

const indexOfPot = (pots: readonly FeedPot[], stationId: string | null): number =>
  Math.max(
    0,
    pots.findIndex(({ id }) => id === stationId),
  );

/** What the others leave, shared among those that take the rest. */
function restFor(
  set: readonly { readonly pot: number; readonly mass: number | null }[],
  pot: number,
  totals: readonly number[],
): number {
  const own = set.filter((batch) => batch.pot === pot);
  const typed = own.reduce((sum, { mass }) => sum + (mass ?? 0), 0);
  return Math.max(0, totals[pot]! - typed) / own.filter(({ mass }) => mass === null).length;
}

function evenTotals(pots: readonly FeedPot[], total: number | null): number[] | null {
  if (total === null) return null;
  const feeds = pots.reduce((sum, pot) => sum + pot.feeds.length, 0);
  return pots.map((pot) => (feeds > 0 ? (total * pot.feeds.length) / feeds : total / pots.length));
}
