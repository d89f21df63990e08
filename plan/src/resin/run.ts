import type { Shop } from '@wick/contract/shop';
import type { RunConditions } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { settle, settledIn, type Settling } from '../settle.ts';
import { batchesOf, preparationOf } from './batches.ts';

/** Times before the first feed opens, s since first mix. */
export function prelude(job: Settling) {
  const mixed = settledIn(job, 'resin.mixDuration');
  const degassed = preparationOf(job);
  return { mixed, degassed, open: degassed + settledIn(job, 'resin.hoseFillDuration') };
}

/** Null while no resin is chosen. */
export function runConditionsOf(job: LaidJob, shop: Shop): RunConditions | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin) return null;
  const mass = firstMass(job, shop);
  return {
    resin,
    temperature: settle(job, shop)['resin.temperature'].value,
    drift: job.resin.drift ?? 0,
    pot: mass > 0 ? { mass, ambient: shop.temperature } : null,
    openTime: prelude(job).open,
  };
}

/** Of the heaviest batch that a pot starts with, kg: the verdict's clock is its. 0 where it is not known. */
function firstMass(job: LaidJob, shop: Shop): number {
  const first = new Map<number, number>();
  for (const { pot, mass } of batchesOf(job, shop)) if (!first.has(pot)) first.set(pot, mass);
  return Math.max(0, ...first.values());
}
