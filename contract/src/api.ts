import { z } from 'zod';
import { jobSchema } from './job.ts';
import { materialSchema } from './materials.ts';
import { mouldSchema } from './mould.ts';
import { shopSchema } from './shop.ts';

/** Everything the server answers. Writes carry the revision they started from; a stale one gets 409 with what is stored. */
export const routes = {
  health: '/api/health',
  jobs: '/api/jobs',
  job: '/api/jobs/:id',
  jobVerdict: '/api/jobs/:id/verdict',
  jobFile: '/api/jobs/:id/file',
  jobImport: '/api/jobs/import',
  jobArchived: '/api/jobs/:id/archived',
  jobRestore: '/api/jobs/:id/restore',
  materials: '/api/materials',
  material: '/api/materials/:id',
  materialHistory: '/api/materials/:id/history',
  materialsImport: '/api/materials/import',
  moulds: '/api/moulds',
  mould: '/api/moulds/:id',
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

const path = z.array(z.strictObject({ x: z.number(), y: z.number() }));

/** Enough of a plan to draw it small, arcs as chords. */
export const planSketchSchema = z.strictObject({
  outline: path,
  holes: z.array(path),
  zones: z.array(path),
  feeds: z.array(path),
  vents: z.array(path),
});
export type PlanSketch = z.infer<typeof planSketchSchema>;

export const jobListItemSchema = z.object({
  id: z.string(),
  revision: z.number().int(),
  changedAt: z.string(),
  name: z.string(),
  process: jobSchema.shape.process,
  isArchived: z.boolean(),
  sketch: planSketchSchema,
  mouldId: z.string().nullable(),
  /** Ids of the library entries it was computed with. */
  materialIds: z.array(z.string()),
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

export const archivedSchema = z.strictObject({ isArchived: z.boolean() });

/** One earlier state of a library entry. */
export const materialVersionSchema = z.object({
  revision: z.number().int(),
  changedAt: z.string(),
  material: materialSchema,
});
export type MaterialVersion = z.infer<typeof materialVersionSchema>;

export const MAX_IMPORT = 2000;
/** All or none: a library file as it was read. */
export const materialsImportSchema = z.strictObject({ materials: z.array(materialSchema).max(MAX_IMPORT) });
export const importCountSchema = z.object({
  added: z.number().int(),
  changed: z.number().int(),
  same: z.number().int(),
});
export type ImportCount = z.infer<typeof importCountSchema>;

export const storedMouldSchema = z.object({ revision: z.number().int(), mould: mouldSchema });
export type StoredMould = z.infer<typeof storedMouldSchema>;
/** Revision 0 adds a new record. */
export const mouldWriteSchema = z.strictObject({ revision: z.number().int().min(0), mould: mouldSchema });
