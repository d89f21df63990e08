import { materialWriteSchema, routes, shopWriteSchema } from '@wick/contract/api';
import express, { Router } from 'express';
import { ProblemError } from '../services/problem.ts';
import type { ShopService } from '../services/shop-service.ts';
import { parseBody } from './body.ts';

export function shopRouter(shop: ShopService): Router {
  const router = Router();
  const json = express.json({ limit: '200kb' });

  router.get(routes.shop, async (_request, response) => {
    response.json(await shop.getShop());
  });
  router.put(routes.shop, json, async (request, response) => {
    const body = parseBody(shopWriteSchema, request.body);
    response.json(await shop.writeShop(body.revision, body.shop));
  });
  router.get(routes.materials, async (_request, response) => {
    response.json(await shop.listMaterials());
  });
  router.put(routes.material, json, async (request, response) => {
    const { revision, material } = parseBody(materialWriteSchema, request.body);
    if (material.id !== request.params.id)
      throw new ProblemError(
        'BAD_REQUEST',
        `The address names “${request.params.id}”, the entry “${material.id}”. Make them agree.`,
      );
    response.json(await shop.writeMaterial(revision, material));
  });
  return router;
}
