import type { Shop } from '@wick/contract/shop';
import { chemistryOf } from '@wick/core/resin/resin-system';
import { styreneBoilsBelow } from '@wick/core/vacuum/styrene';
import { usableTimeOf, clockOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { settle } from '../settle.ts';
import { ambientOf } from '../shop/ambient.ts';
import { runConditionsOf } from './run.ts';

/** Air that stirring by hand leaves in a mix, by volume, and the share of it that degassing takes out: common practice, no source. */
const STIRRED_IN = 0.01;
const TAKEN_OUT = 0.9;
/** How long it usually takes, s: common practice, no source. */
const USUAL = 600;

/** What degassing a mix gains and costs. */
export interface Degas {
  /** s, as planned or as is usual. */
  readonly duration: number;
  readonly isPlanned: boolean;
  /** Share of the usable time that it takes. */
  readonly timeShare: number;
  /** Voids that stirred-in air would leave in the part, as fractions: without and with. */
  readonly voidsWithout: number;
  readonly voidsWith: number;
  /** Pressure below which styrene boils out, Pa absolute; null of a resin without it. */
  readonly boilsBelow: number | null;
}

/** Null while no resin is chosen. @throws ModelError of the resin's curves */
export function degasOf(job: LaidJob, shop: Shop): Degas | null {
  const run = runConditionsOf(job, shop);
  if (!run) return null;
  const settled = settle(job, shop);
  const planned = settled['resin.degasDuration'].value;
  const ambient = ambientOf(shop);
  // Between that of the feed and that of the vent: there the bubbles are smaller or larger than in the bucket.
  const inPart = (ambient + settled['vacuum.ventPressure'].value) / 2;
  const voidsWithout = (STIRRED_IN * ambient) / inPart;
  const duration = planned || USUAL;
  return {
    duration,
    isPlanned: planned > 0,
    timeShare: duration / usableTimeOf(clockOf(run), shop.judging),
    voidsWithout,
    voidsWith: (1 - TAKEN_OUT) * voidsWithout,
    boilsBelow: chemistryOf(run.resin) === 'radical' ? styreneBoilsBelow(run.temperature) : null,
  };
}
