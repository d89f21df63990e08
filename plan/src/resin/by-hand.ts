import type { Shop } from '@wick/contract/shop';
import { formatClock } from '@wick/core/units/format';
import type { LaidJob } from '../job/laid.ts';
import { preparationOf } from './batches.ts';
import { resinToMix } from './ledger.ts';
import { runConditionsOf } from './run.ts';
import { stayOf } from './suggest.ts';

/** In which a ply is wetted out, s: common practice, no source. */
const A_PLY = 900;
const MOST = 40;

/**
 * How resin that is spread by hand is mixed: in the fewest batches that each stay cool and usable in the bucket until they are spread.
 * @returns null while no resin is chosen or the laminate does not tell yet
 * @throws ModelError of the resin's curves
 */
export function byHandWords(job: LaidJob, shop: Shop, show: (mass: number) => string): string | null {
  const run = runConditionsOf(job, shop);
  const total = resinToMix(job, shop);
  if (!run || total === null) return null;
  const wetting = A_PLY * job.laminate.plies.length;
  const stay = stayOf(run, shop, total);
  const timeIn = (count: number) => preparationOf(job) + wetting / count;
  const counts = Array.from({ length: MOST }, (_, n) => n + 1);
  const count = counts.find((own) => stay(total / own) >= timeIn(own));
  const pace = `At ${formatClock(A_PLY)} a ply`;
  if (count === undefined)
    return `${pace} even ${show(total / MOST)} grow too warm or too old in the bucket. Take a slower hardener, or spread each batch on a tray.`;
  return count === 1
    ? `${pace} all of it stays cool and usable in the bucket for the ${formatClock(timeIn(1))} until it is spread.`
    : `${pace} mix ${count} batches of ${show(total / count)}, one after the other: each stays cool and usable in the bucket for the ${formatClock(timeIn(count))} until it is spread.`;
}
