import { routes } from '@wick/contract/api';
import { Router } from 'express';
import type { ReviewService } from '../services/review/review-service.ts';
import { idOf, serve } from './serve.ts';

/** The shop's book, its open lessons, and the record of a part. */
export function reviewRouter(review: ReviewService): Router {
  const router = Router();
  serve(router, routes.listBook, (_asked, request) => review.list(request.query.rehearsals === '1'));
  serve(router, routes.listLessons, () => review.openLessons());
  router.get(routes.getReport.path, async (request, response) => {
    const paper = request.query.paper === 'Letter' ? 'LETTER' : 'A4';
    const { name, data } = await review.report(idOf(request), paper);
    response.setHeader('cache-control', 'no-store');
    response.setHeader('content-disposition', `inline; filename*=UTF-8''${encodeURIComponent(name)}`);
    response.type('application/pdf').send(Buffer.from(data));
  });
  return router;
}
