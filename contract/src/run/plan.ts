import { z } from 'zod';
import { jobSchema } from '../job/job.ts';
import { mouldSchema } from '../mould.ts';
import { shopSchema } from '../shop.ts';
import { stepLibrarySchema } from '../steps.ts';

/** What a run is made by: everything as it was when the plan was taken, whatever becomes of it since. */
export const runPlanSchema = z.object({
  /** Of the plans of its run, from 1. */
  number: z.number().int(),
  takenAt: z.string(),
  jobRevision: z.number().int(),
  job: jobSchema,
  shop: shopSchema,
  mould: mouldSchema.nullable(),
  stepsRevision: z.number().int(),
  steps: stepLibrarySchema,
});
export type RunPlan = z.infer<typeof runPlanSchema>;
