import { routes } from '@wick/contract/api';
import { Router } from 'express';
import type { StepService } from '../services/step-service.ts';
import { serve } from './serve.ts';

const MAX_STEPS_BYTES = 1_000_000;

export function stepRouter(steps: StepService): Router {
  const router = Router();
  serve(router, routes.getSteps, () => steps.get());
  serve(router, routes.stepsHistory, () => steps.history());
  serve(router, routes.writeSteps, ({ body }) => steps.write(body.revision, body.by, body.steps), {
    limit: MAX_STEPS_BYTES,
  });
  return router;
}
