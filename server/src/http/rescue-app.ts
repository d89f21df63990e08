import express, { type Express } from 'express';
import helmet from 'helmet';
import type { BackupFile } from '@wick/contract/api';
import { ProblemError, knownProblem } from '../services/problem.ts';
import { guardOrigin, type GuardParts } from './guard.ts';

export interface RescueParts extends GuardParts {
  /** What was found. */
  readonly what: string;
  /** Newest first. */
  readonly backups: readonly BackupFile[];
  readonly restore: (name: string) => Promise<void>;
  readonly salvage: (onChunk: (chunk: Uint8Array) => void) => Promise<{ jobs: number; lost: number }>;
}

/** What the server answers while its database is damaged: what was found, and the two ways out of it. */
export function createRescueApp({ what, backups, restore, salvage, hosts }: RescueParts): Express {
  const app = express();
  app.use(
    helmet({
      strictTransportSecurity: false,
      contentSecurityPolicy: { directives: { 'upgrade-insecure-requests': null } },
      // Without it a browser does not say that its own page's button was pressed, and the guard refuses.
      referrerPolicy: { policy: 'same-origin' },
    }),
  );
  app.use(guardOrigin({ hosts }));
  app.get('/rescue/files', async (_request, response) => {
    response.attachment('salvaged jobs.zip').type('application/zip');
    const chunks: Uint8Array[] = [];
    await salvage((chunk) => void chunks.push(chunk));
    response.send(Buffer.concat(chunks));
  });
  app.post('/rescue/restore', async (_request, response) => {
    if (!backups[0]) throw new ProblemError('NOT_FOUND', 'There is no nightly backup in the data folder.');
    await restore(backups[0].name);
    response.send(page('The backup is in place', '<p><a href="/">Go to the jobs</a></p>'));
  });
  app.use('/api', () => {
    throw new ProblemError(
      'DAMAGED',
      `The database is damaged (${what}). Open the first page of this server: it says what can be done.`,
    );
  });
  app.get('/{*page}', (_request, response) => void response.status(503).send(damagedPage(what, backups)));
  app.use(((error, _request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = (
      knownProblem(error) ?? new ProblemError('DAMAGED', String((error as Error).message))
    ).toProblem();
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }) satisfies express.ErrorRequestHandler);
  return app;
}

const damagedPage = (what: string, [last]: readonly BackupFile[]) =>
  page(
    'The database is damaged',
    `<p>What was found: ${escaped(what)}.</p>
    <p>It was left as it is. Nothing is written to it.</p>
    ${
      last
        ? `<form method="post" action="/rescue/restore"><button>Restore the last backup: ${escaped(last.name)}</button></form><p>The damaged database is kept aside in the data folder.</p>`
        : '<p>There is no nightly backup in the data folder.</p>'
    }
    <p><a href="/rescue/files">Save every job that can still be read, as files in a ZIP</a></p>`,
  );

const page = (title: string, inner: string) =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><main style="max-width:640px;margin:60px auto;font:16px/1.5 system-ui"><h1>${title}</h1>${inner}</main></html>`;

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
