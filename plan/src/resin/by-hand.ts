import type { Shop } from '@wick/contract/shop';
import { largestBatch } from '@wick/core/resin/pot';
import { createResinClock } from '@wick/core/resin/resin-clock';
import { formatClock } from '@wick/core/units/format';
import { usableTimeOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { resinToMix } from './ledger.ts';
import { runConditionsOf } from './run.ts';

/**
 * How resin that is spread by hand is mixed: in batches small enough to stay cool until they are used up.
 * @returns null while no resin is chosen or the laminate does not tell yet
 * @throws ModelError of the resin's curves
 */
export function byHandWords(job: LaidJob, shop: Shop, show: (mass: number) => string): string | null {
  const run = runConditionsOf(job, shop);
  const total = resinToMix(job, shop);
  if (!run?.pot || total === null) return null;
  // As long as it lasts where it has been spread: the bucket is not to cut that short.
  const until = usableTimeOf(createResinClock(run.resin, run.temperature), shop.judging);
  const largest = largestBatch({
    ...{ resin: run.resin, start: run.temperature, drift: run.drift, ambient: run.pot.ambient, until },
  });
  const words =
    'Wetted by hand: mix small, one after the other. Spread out, resin lasts longer than in the bucket.';
  if (largest === null) return `${words} Even 50 g of this one warm up before they are used.`;
  const count = Math.ceil(total / largest);
  return count <= 1
    ? `${words} All of it at once stays cool for the ${formatClock(until)} in which spread resin is usable.`
    : `${words} Up to ${show(largest)} stay cool for the ${formatClock(until)} in which spread resin is usable: ${count} batches.`;
}
