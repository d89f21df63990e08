import type { PlanSketch } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { Shop } from '@wick/contract/shop';
import { orNull } from '@wick/core/model-error';
import { outcomeKeyOf } from '../forecast/key.ts';
import { planSketchOf } from '../part/sketch.ts';
import { currentLayout, laidOut } from './laid.ts';

/** What a list of jobs shows of one, so that it need not read the documents. */
export interface JobSummary {
  readonly name: string;
  readonly process: Job['process'];
  readonly sketch: PlanSketch;
  readonly mouldId: string | null;
  readonly materialIds: string[];
  readonly currentLayoutId: string;
  /** Key of what the layout worked on comes to; null where it cannot be forecast. */
  readonly resultKey: string | null;
}

export function summaryOf(job: Job, shop: Shop): JobSummary {
  const laid = laidOut(job);
  return {
    name: job.name,
    process: job.process,
    sketch: planSketchOf(laid),
    mouldId: job.mould?.id ?? null,
    materialIds: job.materials.map(({ id }) => id),
    currentLayoutId: currentLayout(job).id,
    resultKey: keyIn(job, shop),
  };
}

const keyIn = (job: Job, shop: Shop): string | null => orNull(() => outcomeKeyOf(laidOut(job), shop));
