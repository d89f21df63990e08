import { problemSchema, type Problem } from '@wick/contract/errors';
import {
  importCountSchema,
  jobListItemSchema,
  materialVersionSchema,
  routes,
  storedJobSchema,
  storedMaterialSchema,
  storedMouldSchema,
  storedShopSchema,
  type ImportCount,
  type JobListItem,
  type MaterialVersion,
  type StoredJob,
  type StoredMaterial,
  type StoredMould,
  type StoredShop,
  type VerdictSummary,
} from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import type { Material } from '@wick/contract/materials';
import type { Mould } from '@wick/contract/mould';
import type { Shop } from '@wick/contract/shop';
import { z } from 'zod';

/** The server answered with a problem. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server did not answer at all. */
export class NotReached extends Error {
  constructor() {
    super(
      'The server does not answer. Check that it runs; your changes are kept in this browser until it does.',
    );
  }
}

async function call<T>(schema: z.ZodType<T>, path: string, options: RequestInit = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, options);
  } catch {
    throw new NotReached();
  }
  const text = await response.text();
  if (!response.ok) {
    const problem = problemSchema.safeParse(parsed(text));
    if (problem.success) throw new ApiProblem(problem.data);
    throw new NotReached();
  }
  return schema.parse(text === '' ? undefined : parsed(text));
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

const withJson = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});
const to = (route: string, id: string) => route.replace(':id', encodeURIComponent(id));
const nothing = z.unknown();

export const api = {
  listJobs: (): Promise<JobListItem[]> => call(z.array(jobListItemSchema), routes.jobs),
  getJob: (id: string): Promise<StoredJob> => call(storedJobSchema, to(routes.job, id)),
  createJob: (name: string): Promise<StoredJob> =>
    call(storedJobSchema, routes.jobs, withJson('POST', { name })),
  duplicateJob: (id: string): Promise<StoredJob> =>
    call(storedJobSchema, routes.jobs, withJson('POST', { copyOf: id })),
  importJob: (text: string): Promise<StoredJob> =>
    call(storedJobSchema, routes.jobImport, {
      method: 'POST',
      headers: { 'content-type': 'text/plain' },
      body: text,
    }),
  writeJob: (id: string, revision: number, document: Job): Promise<StoredJob> =>
    call(storedJobSchema, to(routes.job, id), withJson('PUT', { revision, document })),
  writeVerdict: (id: string, verdict: VerdictSummary) =>
    call(nothing, to(routes.jobVerdict, id), withJson('PUT', verdict)),
  removeJob: (id: string) => call(nothing, to(routes.job, id), { method: 'DELETE' }),
  jobFile: (id: string) => to(routes.jobFile, id),
  getShop: (): Promise<StoredShop> => call(storedShopSchema, routes.shop),
  writeShop: (revision: number, shop: Shop): Promise<StoredShop> =>
    call(storedShopSchema, routes.shop, withJson('PUT', { revision, shop })),
  setArchived: (id: string, isArchived: boolean) =>
    call(nothing, to(routes.jobArchived, id), withJson('PUT', { isArchived })),
  restoreJob: (id: string): Promise<StoredJob> =>
    call(storedJobSchema, to(routes.jobRestore, id), { method: 'POST' }),
  listMaterials: (): Promise<StoredMaterial[]> => call(z.array(storedMaterialSchema), routes.materials),
  writeMaterial: (revision: number, material: Material): Promise<StoredMaterial> =>
    call(storedMaterialSchema, to(routes.material, material.id), withJson('PUT', { revision, material })),
  removeMaterial: (id: string, revision: number) =>
    call(nothing, `${to(routes.material, id)}?revision=${revision}`, { method: 'DELETE' }),
  materialHistory: (id: string): Promise<MaterialVersion[]> =>
    call(z.array(materialVersionSchema), to(routes.materialHistory, id)),
  importMaterials: (materials: readonly Material[]): Promise<ImportCount> =>
    call(importCountSchema, routes.materialsImport, withJson('POST', { materials })),
  listMoulds: (): Promise<StoredMould[]> => call(z.array(storedMouldSchema), routes.moulds),
  writeMould: (revision: number, mould: Mould): Promise<StoredMould> =>
    call(storedMouldSchema, to(routes.mould, mould.id), withJson('PUT', { revision, mould })),
  removeMould: (id: string, revision: number) =>
    call(nothing, `${to(routes.mould, id)}?revision=${revision}`, { method: 'DELETE' }),
};
