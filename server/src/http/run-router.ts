import { routes } from '@wick/contract/api';
import { Router, type Response } from 'express';
import type { JobService } from '../services/job-service.ts';
import type { Rehearsals } from '../services/run/rehearsals.ts';
import type { RunPlans } from '../services/run/run-plans.ts';
import type { RunService } from '../services/run/run-service.ts';
import type { Watching } from '../services/run/watching.ts';
import { serve } from './serve.ts';

/** A batch of entries with their texts. */
const MAX_ENTRIES_BYTES = 500_000;

interface RunParts {
  readonly runs: RunService;
  readonly plans: Pick<RunPlans, 'planOf' | 'take'>;
  readonly rehearsals: Pick<Rehearsals, 'start'>;
  readonly watching: Pick<Watching, 'list'>;
  readonly jobs: Pick<JobService, 'nameOf'>;
}

export function runRouter({ runs, plans, rehearsals, watching, jobs }: RunParts): Router {
  const router = Router();
  const deviceOf = (response: Response) =>
    (response.locals.visitorName as string | undefined) ?? 'this machine';
  serve(router, routes.listRuns, ({ id }) => runs.listOf(id));
  serve(
    router,
    routes.addRun,
    async ({ id, body }) => {
      const run = await runs.add(id, body);
      await plans.planOf(run.id);
      if (run.kind === 'rehearsal') await rehearsals.start(run);
      return run;
    },
    { status: 201, limit: 10_000 },
  );
  serve(router, routes.getRunPlan, ({ id }) => plans.planOf(id));
  serve(router, routes.takeRunPlan, ({ id, body }) => plans.take(id, body.jobRevision), { limit: 1000 });
  serve(router, routes.listWatches, () =>
    Promise.all(
      watching
        .list()
        .map(async ({ run, entries }) => ({ run, entries, jobName: await jobs.nameOf(run.jobId) })),
    ),
  );
  serve(router, routes.listEntries, ({ id }) => runs.entriesOf(id));
  serve(
    router,
    routes.addEntries,
    ({ id, body }, _request, response) => runs.append(id, deviceOf(response), body.entries),
    { limit: MAX_ENTRIES_BYTES },
  );
  return router;
}
