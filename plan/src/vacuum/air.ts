import type { Shop } from '@wick/contract/shop';
import type { AirBudget } from '@wick/core/vacuum/drop-test';
import type { LaidJob } from '../job/laid.ts';
import { partSums } from '../laminate/ply-book.ts';
import { settle } from '../settle.ts';
import { ambientOf } from '../shop/ambient.ts';

/** Largest void fractions that are taken, and the share of the air that lands in wet laminate: common practice, no source. */
const STRUCTURAL = 0.005;
const OTHERWISE = 0.02;
const LANDS = 0.5;

/** For how long air is let in where no forecast says, s; and least, so that a small part is not judged by seconds. */
const NO_FORECAST = 3600;
const LEAST = 300;

export interface JobBudget extends AirBudget {
  readonly isStructural: boolean;
  /** Where the time comes from. */
  readonly timeFrom: 'fill' | 'gel' | 'none';
}

/**
 * What air this job can take: over its forecast fill, or until gel where it does not fill or is wetted by hand.
 * @param forecast s of the run from the opening, and to gel; null where there is none
 * @returns null where there is no laminate yet
 */
export function airBudgetOf(
  job: LaidJob,
  shop: Shop,
  forecast: { readonly fillTime: number | null; readonly gelTime: number | null },
): JobBudget | null {
  const { resinInPlies } = partSums(job, shop);
  if (!(resinInPlies > 0)) return null;
  const { fillTime, gelTime } = forecast;
  const timeFrom = fillTime !== null ? 'fill' : gelTime !== null ? 'gel' : 'none';
  const isStructural = job.vacuum.isStructural ?? true;
  const vent = settle(job, shop)['vacuum.ventPressure'].value;
  return {
    ...{ isStructural, timeFrom },
    voidLimit: isStructural ? STRUCTURAL : OTHERWISE,
    resinVolume: resinInPlies,
    // Between that of the feed and that of the vent.
    resinPressure: (ambientOf(shop) + vent) / 2,
    fillTime: Math.max(LEAST, fillTime ?? gelTime ?? NO_FORECAST),
    share: LANDS,
  };
}
