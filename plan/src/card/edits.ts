import type { JobPrep } from '@wick/contract/job/prep';
import type { Edit } from '../job/edits.ts';

/** What the mould gets before the first ply. */
export const setPrep =
  (changes: Partial<JobPrep>): Edit =>
  (job) => ({ ...job, prep: { ...job.prep, ...changes } });

/** A gel coat as most are laid on: common practice, no source. */
export const usualGelCoat: NonNullable<JobPrep['gelCoat']> = {
  name: 'Gel coat',
  passes: 4,
  film: { low: 0.45e-3, high: 0.65e-3 },
};
