import { routes } from '@wick/contract/api';
import { Router } from 'express';
import type { ShopService } from '../services/shop-service.ts';
import { serve } from './serve.ts';

export function shopRouter(shop: ShopService): Router {
  const router = Router();
  serve(router, routes.getShop, () => shop.getShop());
  serve(router, routes.writeShop, ({ body }) => shop.writeShop(body.revision, body.shop), { limit: 200_000 });
  return router;
}
