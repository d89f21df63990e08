import type { Shop } from '@wick/contract/shop';
import type { RunConditions } from '@wick/core/verdict/verdict';
import { materialOf, settle, settledIn, type Settling } from '../settle.ts';

/** Times before the first feed opens, s since first mix. */
export function prelude(job: Settling) {
  const mixed = settledIn(job, 'resin.mixDuration');
  const degassed = mixed + settledIn(job, 'resin.degasDuration');
  return { mixed, degassed, open: degassed + settledIn(job, 'resin.hoseFillDuration') };
}

/** Null while no resin is chosen. */
export function runConditionsOf(job: Settling, shop: Shop): RunConditions | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  return (
    resin && {
      resin,
      temperature: settle(job, shop)['resin.temperature'].value,
      drift: job.resin.drift ?? 0,
      openTime: prelude(job).open,
    }
  );
}
