import type { ServerResponse } from 'node:http';
import { routes } from '@wick/contract/api';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { knownProblem, ProblemError } from '../services/problem.ts';
import type { Services } from '../services/services.ts';
import { backupRouter, type BackupParts } from './backup-router.ts';
import { accessRouter, type AccessParts } from './access.ts';
import { guardOrigin, type GuardParts } from './guard.ts';
import { instrumentRouter, readingRouter } from './instrument-router.ts';
import { jobRouter } from './job-router.ts';
import { libraryRouter } from './library-router.ts';
import { mouldRouter } from './mould-router.ts';
import { photoRouter } from './photo-router.ts';
import { reviewRouter } from './review-router.ts';
import { runRouter } from './run-router.ts';
import { shopRouter } from './shop-router.ts';
import { stepRouter } from './step-router.ts';
import { streamRouter } from './stream-router.ts';

interface AppParts
  extends
    Pick<
      Services,
      | 'jobs'
      | 'shop'
      | 'library'
      | 'moulds'
      | 'instruments'
      | 'runs'
      | 'rehearsals'
      | 'plans'
      | 'steps'
      | 'photos'
      | 'review'
      | 'watching'
      | 'hub'
      | 'readings'
    >,
    AccessParts,
    GuardParts {
  readonly log: Logger;
  readonly backup: BackupParts;
  /** Folder of the built web application. */
  readonly webFolder?: string;
  /** Hears when compressed forms of its files have come to lie beside them: they are looked up once. */
  readonly onCompressed?: (listen: () => void) => void;
}

export function createApp(parts: AppParts): Express {
  const { jobs, shop, library, moulds, log, backup, webFolder } = parts;
  const app = express();
  app.use(
    helmet({
      // The interface sets styles at run time and starts its worker from a file of its own.
      contentSecurityPolicy: {
        useDefaults: true,
        directives: {
          // The flow solver is WebAssembly.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'worker-src': ["'self'", 'blob:'],
          'font-src': ["'self'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
      // With this a page may share memory with its workers, which lets a run be given up at once.
      crossOriginEmbedderPolicy: true,
    }),
  );
  app.use((request, response, next) => {
    const start = performance.now();
    response.on('finish', () =>
      log.info({
        method: request.method,
        path: request.path,
        status: response.statusCode,
        ms: Math.round(performance.now() - start),
      }),
    );
    next();
  });
  app.use(guardOrigin({ hosts: parts.hosts }));
  app.use(compression());
  app.use(readingRouter(parts.instruments));
  app.use(accessRouter(parts));
  app.get(routes.health.path, async (_request, response) => {
    await shop.getShop();
    response.json({ status: 'ok' });
  });
  app.use(jobRouter(jobs));
  app.use(shopRouter(shop));
  app.use(libraryRouter(library));
  app.use(mouldRouter(moulds));
  app.use(instrumentRouter(parts.instruments));
  app.use(stepRouter(parts.steps));
  app.use(runRouter(parts));
  app.use(photoRouter(parts.photos));
  app.use(reviewRouter(parts.review));
  app.use(streamRouter(parts));
  app.use(backupRouter(backup, parts));
  app.use('/api', (request) => {
    throw new ProblemError('NOT_FOUND', `There is no ${request.method} ${request.originalUrl} here.`);
  });
  if (webFolder) {
    const pages = () =>
      staticGzip(webFolder, {
        index: false,
        enableBrotli: true,
        orderPreference: ['br', 'gz'],
        serveStatic: { setHeaders: cacheFor },
      });
    let current = pages();
    parts.onCompressed?.(() => (current = pages()));
    app.use((request, response, next) => current(request, response, next));
    app.get('/{*page}', (_request, response) => {
      response.setHeader('cache-control', 'no-cache');
      response.sendFile('index.html', { root: webFolder });
    });
  }
  app.use(problemHandler(log));
  return app;
}

/** Files of the build carry a mark of their content in their name: what is under one never changes. */
function cacheFor(response: ServerResponse, path: string): void {
  const isMarked = path.includes('/assets/');
  response.setHeader(
    'cache-control',
    isMarked ? 'public, max-age=31536000, immutable' : 'public, max-age=3600',
  );
}

function problemHandler(log: Logger): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const known = knownProblem(error);
    if (!known && !request.destroyed) log.error({ err: error, path: request.path }, 'unexpected');
    const problem = (
      known ??
      new ProblemError(
        'UNEXPECTED',
        'Something went wrong inside the program; nothing was changed. Try again, and keep the log if it happens twice.',
      )
    ).toProblem();
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
}
