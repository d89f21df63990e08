import { materialsImportSchema, materialWriteSchema, MAX_FILE_BYTES, routes } from '@wick/contract/api';
import express, { Router } from 'express';
import type { LibraryService } from '../services/library-service.ts';
import { parseBody, requireSameId, revisionOf } from './body.ts';

export function libraryRouter(library: LibraryService): Router {
  const router = Router();

  router.get(routes.materials, async (_request, response) => {
    response.json(await library.list());
  });
  router.post(routes.materialsImport, express.json({ limit: MAX_FILE_BYTES }), async (request, response) => {
    const { materials } = parseBody(materialsImportSchema, request.body);
    response.json(await library.importAll(materials));
  });
  router.get(routes.materialHistory, async (request, response) => {
    response.json(await library.history(request.params.id!));
  });
  router.put(routes.material, express.json({ limit: '200kb' }), async (request, response) => {
    const { revision, material } = parseBody(materialWriteSchema, request.body);
    requireSameId(request, material.id);
    response.json(await library.write(revision, material));
  });
  router.delete(routes.material, async (request, response) => {
    await library.remove(request.params.id!, revisionOf(request));
    response.status(204).end();
  });
  return router;
}
