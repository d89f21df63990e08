import { routes, shopWriteSchema } from '@wick/contract/api';
import express, { Router } from 'express';
import type { ShopService } from '../services/shop-service.ts';
import { parseBody } from './body.ts';

export function shopRouter(shop: ShopService): Router {
  const router = Router();

  router.get(routes.shop, async (_request, response) => {
    response.json(await shop.getShop());
  });
  router.put(routes.shop, express.json({ limit: '200kb' }), async (request, response) => {
    const body = parseBody(shopWriteSchema, request.body);
    response.json(await shop.writeShop(body.revision, body.shop));
  });
  return router;
}
