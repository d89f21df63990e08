import { routes } from '@wick/contract/api';
import { Router } from 'express';
import type { LibraryService } from '../services/library-service.ts';
import { requireSameId, serve } from './serve.ts';

export function libraryRouter(library: LibraryService): Router {
  const router = Router();
  serve(router, routes.listMaterials, () => library.list());
  serve(router, routes.importMaterials, ({ body }) => library.importAll(body.materials));
  serve(router, routes.materialHistory, ({ id }) => library.history(id));
  serve(
    router,
    routes.writeMaterial,
    ({ id, body }) => {
      requireSameId(id, body.material.id);
      return library.write(body.revision, body.material);
    },
    { limit: 200_000 },
  );
  serve(router, routes.removeMaterial, (asked) => library.remove(asked.id, asked.revision()));
  return router;
}
