import { z } from 'zod';
import {
  accessDeviceSchema,
  auditLineSchema,
  enterSchema,
  linkSchema,
  newLinkSchema,
  pairingSchema,
  standingSchema,
} from './access.ts';
import { jobSchema } from './job/job.ts';
import { outcomeSchema, resultSchema } from './job/result.ts';
import { materialSchema } from './materials.ts';
import { mouldSchema } from './mould.ts';
import type { Route } from './route.ts';
import { reviewRoutes } from './review.ts';
import { runRoutes } from './run/routes.ts';
import { shopSchema } from './shop.ts';
import { stepLibrarySchema } from './steps.ts';

/** Largest file or document that is taken in. */
export const MAX_FILE_BYTES = 4_000_000;
export const MAX_IMPORT = 2000;

/** As far as the database counts. */
const HIGHEST_REVISION = 2_147_483_647;
export const revisionSchema = z
  .number()
  .int()
  .min(1)
  .max(HIGHEST_REVISION - 1);
const revision = revisionSchema;
/** 0 adds what is not there yet. */
const revisionOrNew = z
  .number()
  .int()
  .min(0)
  .max(HIGHEST_REVISION - 1);

export const storedJobSchema = z.object({
  id: z.string(),
  revision,
  changedAt: z.string(),
  document: jobSchema,
});
export type StoredJob = z.infer<typeof storedJobSchema>;

/** An earlier state of a job. */
const jobRevisionSchema = z.object({ revision, changedAt: z.string() });
export type JobRevision = z.infer<typeof jobRevisionSchema>;

/** What a write comes to; the document is the writer's own. */
const writtenJobSchema = storedJobSchema.pick({ revision: true, changedAt: true });
export type WrittenJob = z.infer<typeof writtenJobSchema>;

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
  revision,
  changedAt: z.string(),
  name: z.string(),
  process: jobSchema.shape.process,
  isArchived: z.boolean(),
  sketch: planSketchSchema,
  mouldId: z.string().nullable(),
  /** Ids of the library entries it was computed with. */
  materialIds: z.array(z.string()),
  /** What the layout worked on came to when it was last forecast; null when it never was. */
  outcome: outcomeSchema.nullable(),
  /** The job has changed since in what the outcome depends on. */
  isStale: z.boolean(),
  /** What is stored of it cannot be read: its earlier versions may. */
  isDamaged: z.boolean(),
});
export type JobListItem = z.infer<typeof jobListItemSchema>;

/** A new job: a name alone, a name with a shape, or a copy, as the other hand if so wanted. */
export const newJobSchema = z.union([
  z.strictObject({
    name: jobSchema.shape.name,
    outline: jobSchema.shape.part.shape.outline.optional(),
    /** Rings within it; they get their ids here. */
    holes: z.array(jobSchema.shape.part.shape.outline).max(50).optional(),
    process: jobSchema.shape.process.optional(),
  }),
  z.strictObject({ copyOf: z.string(), mirrored: z.boolean().optional() }),
]);
export type NewJob = z.infer<typeof newJobSchema>;

export const storedShopSchema = z.object({ revision, shop: shopSchema });
export type StoredShop = z.infer<typeof storedShopSchema>;

/** The workshop's library of steps at a revision, with when it was written and by whom. */
export const storedStepsSchema = z.object({
  revision,
  changedAt: z.string(),
  by: z.string(),
  steps: stepLibrarySchema,
});
export type StoredSteps = z.infer<typeof storedStepsSchema>;

export const storedMaterialSchema = z.object({ revision, material: materialSchema });
export type StoredMaterial = z.infer<typeof storedMaterialSchema>;

/** One earlier state of a library entry. */
const materialVersionSchema = z.object({ revision, changedAt: z.string(), material: materialSchema });
export type MaterialVersion = z.infer<typeof materialVersionSchema>;

const importCountSchema = z.object({
  added: z.number().int(),
  changed: z.number().int(),
  same: z.number().int(),
});
export type ImportCount = z.infer<typeof importCountSchema>;

export const storedMouldSchema = z.object({ revision, mould: mouldSchema });
export type StoredMould = z.infer<typeof storedMouldSchema>;

/** The file of a job: its document, and beside it what its layouts came to. */
export const jobFileSchema = jobSchema.extend({ results: z.array(resultSchema).max(50).optional() });

/** A backup that lies on the server. */
const backupFileSchema = z.object({ name: z.string(), byteCount: z.number() });
export type BackupFile = z.infer<typeof backupFileSchema>;

const nothing = z.void();
/** Text that the service reads, and whose faults it words. */
const text = z.string();

/**
 * Everything the server answers. Writes carry the revision they started from; a stale one gets 409 with what is stored.
 * Documents are checked by their service, which words their faults.
 */
export const routes = {
  health: { method: 'GET', path: '/api/health', body: null, answer: z.object({ status: z.literal('ok') }) },
  listJobs: { method: 'GET', path: '/api/jobs', body: null, answer: z.array(jobListItemSchema) },
  addJob: { method: 'POST', path: '/api/jobs', body: newJobSchema, answer: storedJobSchema },
  importJob: { method: 'POST', path: '/api/jobs/import', body: text, answer: storedJobSchema },
  getJob: { method: 'GET', path: '/api/jobs/:id', body: null, answer: storedJobSchema },
  writeJob: {
    method: 'PUT',
    path: '/api/jobs/:id',
    body: z.strictObject({ revision, document: z.unknown() }),
    answer: writtenJobSchema,
  },
  /** With ?revision=, as every deletion. */
  removeJob: { method: 'DELETE', path: '/api/jobs/:id', body: null, answer: nothing },
  restoreJob: { method: 'POST', path: '/api/jobs/:id/restore', body: null, answer: storedJobSchema },
  archiveJob: {
    method: 'PUT',
    path: '/api/jobs/:id/archived',
    body: z.strictObject({ revision, isArchived: z.boolean() }),
    answer: nothing,
  },
  listResults: { method: 'GET', path: '/api/jobs/:id/results', body: null, answer: z.array(resultSchema) },
  /** Earlier states of a job, newest first. */
  listRevisions: {
    method: 'GET',
    path: '/api/jobs/:id/revisions',
    body: null,
    answer: z.array(jobRevisionSchema),
  },
  /** With ?revision=. */
  getRevision: { method: 'GET', path: '/api/jobs/:id/revision', body: null, answer: storedJobSchema },
  /** Makes an earlier state the newest one, over the revision that is there now. */
  takeBack: {
    method: 'POST',
    path: '/api/jobs/:id/take-back',
    body: z.strictObject({ revision, earlier: revision }),
    answer: storedJobSchema,
  },
  /** Each takes the place of an earlier one of its layout, while the job is at the revision. */
  keepResults: {
    method: 'PUT',
    path: '/api/jobs/:id/results',
    body: z.strictObject({ revision, results: z.array(resultSchema).max(50) }),
    answer: nothing,
  },
  jobFile: { method: 'GET', path: '/api/jobs/:id/file', body: null, answer: jobFileSchema },
  listMaterials: { method: 'GET', path: '/api/materials', body: null, answer: z.array(storedMaterialSchema) },
  /** All or none: a library file as it was read, each entry with the revision that it is to replace. */
  importMaterials: {
    method: 'POST',
    path: '/api/materials/import',
    body: z.strictObject({
      materials: z
        .array(z.strictObject({ revision: revisionOrNew, material: materialSchema }))
        .max(MAX_IMPORT),
    }),
    answer: importCountSchema,
  },
  writeMaterial: {
    method: 'PUT',
    path: '/api/materials/:id',
    body: z.strictObject({ revision: revisionOrNew, material: materialSchema }),
    answer: storedMaterialSchema,
  },
  removeMaterial: { method: 'DELETE', path: '/api/materials/:id', body: null, answer: nothing },
  materialHistory: {
    method: 'GET',
    path: '/api/materials/:id/history',
    body: null,
    answer: z.array(materialVersionSchema),
  },
  listMoulds: { method: 'GET', path: '/api/moulds', body: null, answer: z.array(storedMouldSchema) },
  writeMould: {
    method: 'PUT',
    path: '/api/moulds/:id',
    body: z.strictObject({ revision: revisionOrNew, mould: mouldSchema }),
    answer: storedMouldSchema,
  },
  removeMould: { method: 'DELETE', path: '/api/moulds/:id', body: null, answer: nothing },
  getSteps: { method: 'GET', path: '/api/steps', body: null, answer: storedStepsSchema },
  /** Every revision there was, newest first. */
  stepsHistory: { method: 'GET', path: '/api/steps/history', body: null, answer: z.array(storedStepsSchema) },
  writeSteps: {
    method: 'PUT',
    path: '/api/steps',
    body: z.strictObject({ revision, by: z.string().trim().max(40), steps: stepLibrarySchema }),
    answer: storedStepsSchema,
  },
  /** How whoever asks stands to this server. Answered to everyone. */
  getStanding: { method: 'GET', path: '/api/standing', body: null, answer: standingSchema },
  enter: { method: 'POST', path: '/api/enter', body: enterSchema, answer: nothing },
  leave: { method: 'POST', path: '/api/leave', body: null, answer: nothing },
  pair: { method: 'POST', path: '/api/pairings', body: null, answer: pairingSchema },
  makeLink: { method: 'POST', path: '/api/links', body: newLinkSchema, answer: linkSchema },
  listDevices: { method: 'GET', path: '/api/devices', body: null, answer: z.array(accessDeviceSchema) },
  sendAway: { method: 'DELETE', path: '/api/devices/:id', body: null, answer: nothing },
  listAudit: { method: 'GET', path: '/api/audit', body: null, answer: z.array(auditLineSchema) },
  listBackups: { method: 'GET', path: '/api/backups', body: null, answer: z.array(backupFileSchema) },
  /** A backup made now, as a file; or with ?name= one of the nightly ones. */
  takeBackup: { method: 'GET', path: '/api/backup', body: null, answer: nothing },
  /** Takes a backup, sent as a ZIP, in the place of what is there, which is kept aside. */
  restoreBackup: {
    method: 'POST',
    path: '/api/restore',
    body: null,
    answer: z.object({ keptAs: z.string() }),
  },
  /** Every job, the library, moulds and settings as open files in a ZIP. */
  openFiles: { method: 'GET', path: '/api/open-files', body: null, answer: nothing },
  ...runRoutes,
  ...reviewRoutes,
  getShop: { method: 'GET', path: '/api/shop', body: null, answer: storedShopSchema },
  writeShop: {
    method: 'PUT',
    path: '/api/shop',
    body: z.strictObject({ revision, shop: shopSchema }),
    answer: storedShopSchema,
  },
} as const satisfies Record<string, Route>;
