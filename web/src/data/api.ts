import { routes, type NewJob, type StoredMaterial } from '@wick/contract/api';
import type { Route } from '@wick/contract/route';
import { problemSchema, type Problem } from '@wick/contract/errors';
import type { Job } from '@wick/contract/job/job';
import type { JobResult } from '@wick/contract/job/result';
import type { Material } from '@wick/contract/materials';
import type { Mould } from '@wick/contract/mould';
import type { NewInstrument } from '@wick/contract/run/instrument';
import type { NewEntry, NewRun } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { StepLibrary } from '@wick/contract/steps';
import type { Enter } from '@wick/contract/access';
import type { z } from 'zod';

/** The server answered with a problem. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** No answer at all, or not from this program. */
export class NotReached extends Error {
  constructor() {
    super('The server does not answer. Check that it runs; what you change is kept here meanwhile.');
  }
}

/** What may be answered otherwise a while later: no answer at all, a server in trouble, a device that has to enter again. */
export const isPassing = (error: unknown): boolean =>
  error instanceof NotReached ||
  (error instanceof ApiProblem &&
    (error.problem.status >= 500 || error.problem.status === 401 || error.problem.status === 429));

/** Told when the server does not know this device. */
export const outside = { onFound: (): unknown => undefined };

interface Sent<R extends Route> {
  readonly id?: string;
  readonly query?: Readonly<Record<string, string | number>>;
  readonly body?: R['body'] extends z.ZodType ? z.input<R['body']> : never;
  /** Further ids of the address, by their names. */
  readonly ids?: Readonly<Record<string, string>>;
  /** Sent as it is, in place of a body. */
  readonly file?: { readonly type: string; readonly data: Blob };
}

/** The address of a route, for a link. */
function addressOf(
  route: Route,
  { id = '', ids = {}, query }: Pick<Sent<Route>, 'id' | 'ids' | 'query'> = {},
): string {
  const path = Object.entries({ ...ids, id }).reduce(
    (own, [name, value]) => own.replace(`:${name}`, encodeURIComponent(value)),
    route.path as string,
  );
  const search = new URLSearchParams(Object.entries(query ?? {}).map(([key, value]) => [key, `${value}`]));
  return search.size > 0 ? `${path}?${search.toString()}` : path;
}

/**
 * Asks the server by a route of the contract.
 * @throws ApiProblem with what it refused and why; NotReached
 */
async function call<R extends Route>(route: R, sent: Sent<R> = {}): Promise<z.infer<R['answer']>> {
  const { body, file } = sent as { body?: unknown; file?: Sent<Route>['file'] };
  let response: Response;
  let text: string;
  try {
    response = await fetch(addressOf(route, sent), {
      method: route.method,
      ...(file ? { headers: { 'content-type': file.type }, body: file.data } : {}),
      ...(body === undefined
        ? {}
        : {
            headers: { 'content-type': 'application/json' },
            // A file goes as it is: the server reads it.
            body: typeof body === 'string' ? body : JSON.stringify(body),
          }),
    });
    text = await response.text();
  } catch {
    throw new NotReached();
  }
  let answer: unknown;
  try {
    answer = text === '' ? undefined : JSON.parse(text);
  } catch {
    throw new NotReached();
  }
  if (!response.ok) {
    const problem = problemSchema.safeParse(answer);
    if (problem.data?.code === 'NOT_LET_IN' && route.path !== routes.enter.path) void outside.onFound();
    throw problem.success ? new ApiProblem(problem.data) : new NotReached();
  }
  return route.answer.parse(answer) as z.infer<R['answer']>;
}

export const api = {
  listJobs: () => call(routes.listJobs),
  getJob: (id: string) => call(routes.getJob, { id }),
  addJob: (body: NewJob) => call(routes.addJob, { body }),
  importJob: (body: string) => call(routes.importJob, { body }),
  writeJob: (id: string, revision: number, document: Job) =>
    call(routes.writeJob, { id, body: { revision, document } }),
  removeJob: (id: string, revision: number) => call(routes.removeJob, { id, query: { revision } }),
  restoreJob: (id: string) => call(routes.restoreJob, { id }),
  archiveJob: (id: string, revision: number, isArchived: boolean) =>
    call(routes.archiveJob, { id, body: { revision, isArchived } }),
  listRevisions: (id: string) => call(routes.listRevisions, { id }),
  getRevision: (id: string, revision: number) => call(routes.getRevision, { id, query: { revision } }),
  takeBack: (id: string, revision: number, earlier: number) =>
    call(routes.takeBack, { id, body: { revision, earlier } }),
  listResults: (id: string) => call(routes.listResults, { id }),
  keepResults: (id: string, revision: number, results: JobResult[]) =>
    call(routes.keepResults, { id, body: { revision, results } }),
  jobFile: (id: string) => addressOf(routes.jobFile, { id }),
  getStanding: () => call(routes.getStanding),
  enter: (body: Enter) => call(routes.enter, { body }),
  pair: () => call(routes.pair),
  makeLink: (name: string) => call(routes.makeLink, { body: { name } }),
  listDevices: () => call(routes.listDevices),
  sendAway: (id: string) => call(routes.sendAway, { id }),
  listAudit: () => call(routes.listAudit),
  listBackups: () => call(routes.listBackups),
  /** One of the night by its name, or one made now. */
  backupFile: (name?: string) => addressOf(routes.takeBackup, name === undefined ? {} : { query: { name } }),
  openFiles: () => addressOf(routes.openFiles),
  restoreBackup: (data: File) => call(routes.restoreBackup, { file: { type: 'application/zip', data } }),
  getShop: () => call(routes.getShop),
  writeShop: (revision: number, shop: Shop) => call(routes.writeShop, { body: { revision, shop } }),
  listMaterials: () => call(routes.listMaterials),
  writeMaterial: (revision: number, material: Material) =>
    call(routes.writeMaterial, { id: material.id, body: { revision, material } }),
  removeMaterial: (id: string, revision: number) =>
    call(routes.removeMaterial, { id, query: { revision } }),
  materialHistory: (id: string) => call(routes.materialHistory, { id }),
  importMaterials: (materials: readonly StoredMaterial[]) =>
    call(routes.importMaterials, { body: { materials: [...materials] } }),
  listRuns: (jobId: string) => call(routes.listRuns, { id: jobId }),
  addRun: (jobId: string, body: NewRun) => call(routes.addRun, { id: jobId, body }),
  getRunPlan: (runId: string) => call(routes.getRunPlan, { id: runId }),
  takeRunPlan: (runId: string, jobRevision: number) =>
    call(routes.takeRunPlan, { id: runId, body: { jobRevision } }),
  addPhoto: (runId: string, photoId: string, data: Blob) =>
    call(routes.addPhoto, { id: runId, ids: { photoId }, file: { type: data.type, data } }),
  photoFile: (runId: string, photoId: string, size: 'large' | 'small') =>
    addressOf(routes.getPhoto, { id: runId, ids: { photoId }, query: { size } }),
  getSteps: () => call(routes.getSteps),
  stepsHistory: () => call(routes.stepsHistory),
  writeSteps: (revision: number, by: string, steps: StepLibrary) =>
    call(routes.writeSteps, { body: { revision, by, steps } }),
  listEntries: (runId: string) => call(routes.listEntries, { id: runId }),
  addEntries: (runId: string, entries: NewEntry[]) =>
    call(routes.addEntries, { id: runId, body: { entries } }),
  listWatches: () => call(routes.listWatches),
  listBook: (withRehearsals = false) =>
    call(routes.listBook, withRehearsals ? { query: { rehearsals: 1 } } : {}),
  listLessons: () => call(routes.listLessons),
  reportFile: (runId: string, paper: string) => addressOf(routes.getReport, { id: runId, query: { paper } }),
  listInstruments: () => call(routes.listInstruments),
  addInstrument: (body: NewInstrument) => call(routes.addInstrument, { body }),
  renewWord: (id: string) => call(routes.renewWord, { id }),
  revokeInstrument: (id: string) => call(routes.revokeInstrument, { id }),
  typeReading: (id: string, body: { id: string; at: string; value: number }) =>
    call(routes.typeReading, { id, body }),
  readWindow: (id: string, query: { from: number; to: number; places: number }) =>
    call(routes.readWindow, { id, query }),
  readSamples: (id: string, query: { from: number; to: number; most: number }) =>
    call(routes.readSamples, { id, query }),
  listMoulds: () => call(routes.listMoulds),
  writeMould: (revision: number, mould: Mould) =>
    call(routes.writeMould, { id: mould.id, body: { revision, mould } }),
  removeMould: (id: string, revision: number) => call(routes.removeMould, { id, query: { revision } }),
};
