import { hasFront } from '../processes/processes.ts';
import type { StageId } from '../processes/processes.ts';
import type { LaidJob } from '../job/laid.ts';

/** What has to be there before anything can be computed; the stage where it is entered. */
export interface Missing {
  readonly stage: StageId;
  readonly message: string;
}

export function missingOf(job: LaidJob): Missing[] {
  const missing: Missing[] = [];
  const isDrawn = hasFront(job);
  if (job.laminate.plies.length === 0)
    missing.push({ stage: 'laminate', message: 'No plies yet. Add the first from the library.' });
  if (isDrawn && !job.lines.some((line) => line.kind === 'feed'))
    missing.push({ stage: 'lines', message: 'No feed yet. Place one where resin enters.' });
  if (isDrawn && !job.lines.some((line) => line.kind === 'vent'))
    missing.push({ stage: 'lines', message: 'No vent yet. Place one where the front ends.' });
  if (job.resin.materialId === null) missing.push({ stage: 'resin', message: 'No resin chosen yet.' });
  return missing;
}
