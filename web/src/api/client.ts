import { problemSchema, type Problem } from '@wick/contract/errors';
import {
  jobListItemSchema,
  routes,
  storedJobSchema,
  storedMaterialSchema,
  storedShopSchema,
  type JobListItem,
  type StoredJob,
  type StoredMaterial,
  type StoredShop,
  type VerdictSummary,
} from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
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
  listMaterials: (): Promise<StoredMaterial[]> => call(z.array(storedMaterialSchema), routes.materials),
};
