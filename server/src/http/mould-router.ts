import { routes } from '@wick/contract/api';
import { Router } from 'express';
import type { MouldService } from '../services/mould-service.ts';
import { requireSameId, serve } from './serve.ts';

export function mouldRouter(moulds: MouldService): Router {
  const router = Router();
  serve(router, routes.listMoulds, () => moulds.list());
  serve(
    router,
    routes.writeMould,
    ({ id, body }) => {
      requireSameId(id, body.mould.id);
      return moulds.write(body.revision, body.mould);
    },
    { limit: 1_000_000 },
  );
  serve(router, routes.removeMould, (asked) => moulds.remove(asked.id, asked.revision()));
  return router;
}
