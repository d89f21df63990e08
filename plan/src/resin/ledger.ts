import { materialOf } from '../job/material-of.ts';
import { settledIn } from '../settle.ts';
import { lineLength } from '@wick/core/geometry/polygon';
import { hoseRunsOf } from '../layout/hoses.ts';
import type { LaidJob } from '../job/laid.ts';
import { partSums, type PartSums } from '../laminate/ply-book.ts';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { resinLedger, type ResinLedgerRequest } from '@wick/core/ledger/resin-ledger';
import { ModelError } from '@wick/core/model-error';
import type { Shop } from '@wick/contract/shop';

/**
 * Input of the resin ledger; of no resin yet, with a usual density and no hardener.
 * @param flow of the job: its vents then count, and where it followed a soft laminate how that settled
 */
export function ledgerRequestOf(
  job: LaidJob,
  sums: PartSums,
  flow: FlowForecast | null = null,
): ResinLedgerRequest {
  return {
    density: settledIn(job, 'resin.density'),
    hardenerParts: materialOf(job, job.resin.materialId, 'resin')?.hardenerParts ?? 0,
    resinInPlies: sums.resinInPlies,
    resinAsItOpens: flow?.resinAtEnd ? Math.max(0, flow.resinAtEnd - sums.resinInPlies) : sums.resinAsItOpens,
    resinInConsumables: sums.resinInConsumables,
    resinInCore: sums.resinInCore,
    lines: job.lines
      .filter((line) => line.kind === 'feed')
      .map((line) => ({ length: lineLength(line.points), bore: line.bore })),
    hoses: hoseRunsOf(job).filter(({ kind }) => kind === 'feed'),
    vented: flow?.vented ?? 0,
    reserve: job.resin.reserve,
    leftInPot: settledIn(job, 'resin.heel'),
    fibre: sums.fibre,
  };
}

/** Resin to mix in all, kg; null where the laminate does not tell yet. */
export function resinToMix(job: LaidJob, shop: Shop): number | null {
  if (job.laminate.plies.length === 0) return null;
  try {
    return resinLedger(ledgerRequestOf(job, partSums(job, shop))).total;
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}
