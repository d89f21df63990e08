import { z } from 'zod';
import { jobSchema } from './job.ts';
import { materialSchema } from './materials.ts';
import { shopSchema } from './shop.ts';

/** Everything the server answers. Writes carry the revision they started from; a stale one gets 409 with what is stored. */
export const routes = {
  health: '/api/health',
  jobs: '/api/jobs',
  job: '/api/jobs/:id',
  jobVerdict: '/api/jobs/:id/verdict',
  jobFile: '/api/jobs/:id/file',
  jobImport: '/api/jobs/import',
  materials: '/api/materials',
  material: '/api/materials/:id',
  shop: '/api/shop',
} as const;

export const MAX_FILE_BYTES = 4_000_000;

const bands = ['comfortable', 'tight', 'gamble', 'willNotFill', 'drySpot', 'airTrapped'] as const;

/** What the list of jobs shows of the last forecast; null times stand for "never". */
export const verdictSummarySchema = z.strictObject({
  revision: z.number().int(),
  band: z.enum(bands),
  fillTime: z.number().nullable(),
  gelTime: z.number(),
});
export type VerdictSummary = z.infer<typeof verdictSummarySchema>;

export const storedJobSchema = z.object({
  id: z.string(),
  revision: z.number().int(),
  changedAt: z.string(),
  document: jobSchema,
});
export type StoredJob = z.infer<typeof storedJobSchema>;

export const jobListItemSchema = z.object({
  id: z.string(),
  revision: z.number().int(),
  changedAt: z.string(),
  name: z.string(),
  process: jobSchema.shape.process,
  outline: jobSchema.shape.part.shape.outline,
  verdict: verdictSummarySchema.nullable(),
});
export type JobListItem = z.infer<typeof jobListItemSchema>;

export const jobWriteSchema = z.strictObject({ revision: z.number().int().min(1), document: jobSchema });

export const storedShopSchema = z.object({ revision: z.number().int(), shop: shopSchema });
export type StoredShop = z.infer<typeof storedShopSchema>;
export const shopWriteSchema = z.strictObject({ revision: z.number().int().min(1), shop: shopSchema });

export const storedMaterialSchema = z.object({ revision: z.number().int(), material: materialSchema });
export type StoredMaterial = z.infer<typeof storedMaterialSchema>;
/** Revision 0 adds a new entry. */
export const materialWriteSchema = z.strictObject({
  revision: z.number().int().min(0),
  material: materialSchema,
});
