import { routes } from '@wick/contract/api';
import { writeJobFile } from '@wick/plan/files/job-file';
import { Router } from 'express';
import type { JobService } from '../services/job-service.ts';
import { idOf, serve } from './serve.ts';

export function jobRouter(jobs: JobService): Router {
  const router = Router();
  serve(router, routes.listJobs, () => jobs.list());
  serve(router, routes.addJob, ({ body }) => jobs.create(body), { status: 201 });
  serve(router, routes.importJob, ({ body }) => jobs.importFile(body), { status: 201 });
  serve(router, routes.getJob, ({ id }) => jobs.get(id));
  serve(router, routes.writeJob, ({ id, body }) => jobs.write(id, body.revision, body.document));
  serve(router, routes.removeJob, (asked) => jobs.remove(asked.id, asked.revision()));
  serve(router, routes.restoreJob, ({ id }) => jobs.restore(id));
  serve(router, routes.archiveJob, ({ id, body }) => jobs.setArchived(id, body.revision, body.isArchived));
  serve(router, routes.listRevisions, ({ id }) => jobs.revisions(id));
  serve(router, routes.getRevision, (asked) => jobs.revision(asked.id, asked.revision()));
  serve(router, routes.takeBack, ({ id, body }) => jobs.takeBack(id, body.revision, body.earlier));
  serve(router, routes.listResults, ({ id }) => jobs.results(id));
  serve(router, routes.keepResults, ({ id, body }) => jobs.keepResults(id, body.revision, body.results));
  // A file to keep, not an answer to read.
  router.get(routes.jobFile.path, async (request, response) => {
    const file = await jobs.exportFile(idOf(request));
    response
      .attachment(`${file.job.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.wick.json`)
      .type('application/json')
      .send(writeJobFile(file));
  });
  return router;
}
