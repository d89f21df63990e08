import { archivedSchema, MAX_FILE_BYTES, routes, verdictSummarySchema } from '@wick/contract/api';
import { jobSchema } from '@wick/contract/job';
import express, { Router } from 'express';
import { z } from 'zod';
import type { JobService } from '../services/job-service.ts';
import { parseBody } from './body.ts';

/** A new job by name, or a copy of another. */
const createSchema = z.union([
  z.strictObject({ name: jobSchema.shape.name }),
  z.strictObject({ copyOf: z.string() }),
]);
/** The document is checked by the service, which words its faults. */
const writeSchema = z.strictObject({ revision: z.number().int().min(1), document: z.unknown() });

export function jobRouter(jobs: JobService): Router {
  const router = Router();
  const json = express.json({ limit: MAX_FILE_BYTES });

  router.get(routes.jobs, async (_request, response) => {
    response.json(await jobs.list());
  });
  router.post(routes.jobs, json, async (request, response) => {
    const body = parseBody(createSchema, request.body);
    response
      .status(201)
      .json('name' in body ? await jobs.create(body.name) : await jobs.duplicate(body.copyOf));
  });
  router.post(
    routes.jobImport,
    express.text({ limit: MAX_FILE_BYTES, type: () => true }),
    async (request, response) => {
      response.status(201).json(await jobs.importFile(typeof request.body === 'string' ? request.body : ''));
    },
  );
  router.get(routes.job, async (request, response) => {
    response.json(await jobs.get(request.params.id!));
  });
  router.put(routes.job, json, async (request, response) => {
    const { revision, document } = parseBody(writeSchema, request.body);
    response.json(await jobs.write(request.params.id!, revision, document));
  });
  router.delete(routes.job, async (request, response) => {
    await jobs.remove(request.params.id!);
    response.status(204).end();
  });
  router.post(routes.jobRestore, async (request, response) => {
    response.json(await jobs.restore(request.params.id!));
  });
  router.put(routes.jobArchived, json, async (request, response) => {
    await jobs.setArchived(request.params.id!, parseBody(archivedSchema, request.body).isArchived);
    response.status(204).end();
  });
  router.put(routes.jobVerdict, json, async (request, response) => {
    await jobs.setVerdict(request.params.id!, parseBody(verdictSummarySchema, request.body));
    response.status(204).end();
  });
  router.get(routes.jobFile, async (request, response) => {
    const document = await jobs.exportFile(request.params.id!);
    response
      .attachment(`${document.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.wick.json`)
      .type('application/json');
    response.send(JSON.stringify(document, null, 2));
  });
  return router;
}
