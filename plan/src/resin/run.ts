import type { Shop } from '@wick/contract/shop';
import type { RunConditions } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { settle, settledIn, type Settling } from '../settle.ts';
import { resinToMix } from './ledger.ts';

/** Times before the first feed opens, s since first mix. */
export function prelude(job: Settling) {
  const mixed = settledIn(job, 'resin.mixDuration');
  const degassed = mixed + settledIn(job, 'resin.degasDuration');
  return { mixed, degassed, open: degassed + settledIn(job, 'resin.hoseFillDuration') };
}

/** Null while no resin is chosen. */
export function runConditionsOf(job: LaidJob, shop: Shop): RunConditions | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin) return null;
  const [mass] = batchMasses(job, shop);
  return {
    resin,
    temperature: settle(job, shop)['resin.temperature'].value,
    drift: job.resin.drift ?? 0,
    pot: mass ? { mass, ambient: shop.temperature } : null,
    openTime: prelude(job).open,
  };
}

/** What goes into the pot, kg, batch by batch, the first one first: each lasts until the next is put on. Null where it is not known. */
export function batchMasses(job: LaidJob, shop: Shop): (number | null)[] {
  const total = resinToMix(job, shop);
  const starts = [0, ...job.resin.batches.map(({ after }) => after)];
  return starts.map((start, n) => {
    const end = starts[n + 1] ?? total;
    return end !== null && end > start ? end - start : null;
  });
}
