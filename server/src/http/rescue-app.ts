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
      contentSecurityPolicy: {
        directives: {
          'style-src': ["'unsafe-inline'"],
          'font-src': ["'self'"],
          'upgrade-insecure-requests': null,
        },
      },
      // Without it a browser does not say that its own page's button was pressed, and the guard refuses.
      referrerPolicy: { policy: 'same-origin' },
    }),
  );
  app.use(guardOrigin({ hosts }));
  app.get('/rescue/files', async (_request, response) => {
    const chunks: Uint8Array[] = [];
    await salvage((chunk) => void chunks.push(chunk));
    response.attachment('salvaged jobs.zip').type('application/zip').send(Buffer.concat(chunks));
  });
  app.post('/rescue/restore', async (request, response) => {
    await restore(String(request.query.name));
    response.send(page('The backup is in place', '<p><a href="/">Go to the jobs</a></p>'));
  });
  app.use('/api', () => {
    throw new ProblemError(
      'DAMAGED',
      `The database is damaged (${what}). Open the first page of this server: it says what can be done.`,
    );
  });
  app.get('/{*page}', (_request, response) => void response.status(503).send(damagedPage(what, backups)));
  app.use(((error, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = (
      knownProblem(error) ?? new ProblemError('DAMAGED', String((error as Error).message))
    ).toProblem();
    response.status(problem.status);
    if (request.path.startsWith('/api'))
      return void response.type('application/problem+json').send(JSON.stringify(problem));
    const { title, detail } = problem;
    response.send(page(title, `<p>${escaped(detail)}</p><p><a href="/">Back to what can be done</a></p>`));
  }) satisfies express.ErrorRequestHandler);
  return app;
}

const damagedPage = (what: string, [last, ...earlier]: readonly BackupFile[]) =>
  page(
    'The database is damaged',
    `<p>What was found: ${escaped(what)}.</p>
    <p>It was left as it is. Nothing is written to it.</p>
    ${
      last
        ? `${restoreForm('Restore the last backup:', last)}<p>The damaged database is kept aside in the data folder.</p>`
        : '<p>There is no nightly backup in the data folder.</p>'
    }
    <p><a href="/rescue/files">Save every job that can still be read, as files in a ZIP</a></p>
    ${earlier.length > 0 ? '<h2>If the last backup cannot be used</h2>' : ''}
    ${earlier.map((backup) => restoreForm('Restore', backup)).join('')}`,
  );

const restoreForm = (words: string, { name }: BackupFile) =>
  `<form method="post" action="/rescue/restore?name=${encodeURIComponent(name)}"><button>${words} ${escaped(name)}</button></form>`;

/** The program's paper and ink; its own pages and fonts may be what is damaged. */
const STYLE = `
  body { margin: 0; background: #f6f3ec; color: #1e2a2f; font: 17px/1.5 system-ui, sans-serif }
  main { max-width: 640px; margin: 60px auto; padding: 0 20px }
  h2 { font-size: 17px; margin-top: 36px }
  a { color: #1f6f78 }
  button { font: inherit; text-align: left; min-height: 44px; margin-bottom: 8px; padding: 8px 16px; color: #1e2a2f; background: #fcfbf8; border: 1px solid #1e2a2f; border-radius: 4px; cursor: pointer }`;

const page = (title: string, inner: string) =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><style>${STYLE}</style><main><h1>${title}</h1>${inner}</main></html>`;

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
