import { lineLength } from '@wick/core/geometry/polygon';
import { materialOf } from './forecast-input.ts';
import { hoseRunsOf } from './hoses.ts';
import type { Job } from './job.ts';
import type { PartSums } from './ply-book.ts';

/** Left in pot and cup, kg: common practice, no source. */
const LEFT_IN_POT = 0.15;

/** Input of the resin ledger; null while no resin is chosen. */
export function ledgerRequestOf(job: Job, sums: PartSums) {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin) return null;
  return {
    density: resin.density,
    hardenerParts: resin.hardenerParts,
    resinInPlies: sums.resinInPlies,
    resinInConsumables: sums.resinInConsumables,
    resinInCore: sums.resinInCore,
    lines: job.lines
      .filter((line) => line.kind === 'feed')
      .map((line) => ({ length: lineLength(line.points), bore: line.bore })),
    hoses: hoseRunsOf(job).filter(({ kind }) => kind === 'feed'),
    leftInPot: LEFT_IN_POT,
    fibre: sums.fibre,
  };
}
