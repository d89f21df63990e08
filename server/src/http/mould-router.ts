import { mouldWriteSchema, routes } from '@wick/contract/api';
import express, { Router } from 'express';
import type { MouldService } from '../services/mould-service.ts';
import { parseBody, requireSameId, revisionOf } from './body.ts';

export function mouldRouter(moulds: MouldService): Router {
  const router = Router();

  router.get(routes.moulds, async (_request, response) => {
    response.json(await moulds.list());
  });
  router.put(routes.mould, express.json({ limit: '1mb' }), async (request, response) => {
    const { revision, mould } = parseBody(mouldWriteSchema, request.body);
    requireSameId(request, mould.id);
    response.json(await moulds.write(revision, mould));
  });
  router.delete(routes.mould, async (request, response) => {
    await moulds.remove(request.params.id!, revisionOf(request));
    response.status(204).end();
  });
  return router;
}
