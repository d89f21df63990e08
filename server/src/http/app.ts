import { routes } from '@wick/contract/api';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { JobService } from '../services/job-service.ts';
import { knownProblem, ProblemError } from '../services/problem.ts';
import type { ShopService } from '../services/shop-service.ts';
import type { LibraryService } from '../services/library-service.ts';
import type { MouldService } from '../services/mould-service.ts';
import { jobRouter } from './job-router.ts';
import { libraryRouter } from './library-router.ts';
import { mouldRouter } from './mould-router.ts';
import { shopRouter } from './shop-router.ts';

interface AppParts {
  readonly jobs: JobService;
  readonly shop: ShopService;
  readonly library: LibraryService;
  readonly moulds: MouldService;
  readonly log: Logger;
  /** Folder of the built web application. */
  readonly webFolder?: string;
}

export function createApp({ jobs, shop, library, moulds, log, webFolder }: AppParts): Express {
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
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
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
  app.get(routes.health.path, async (_request, response) => {
    await shop.getShop();
    response.json({ status: 'ok' });
  });
  app.use(jobRouter(jobs));
  app.use(shopRouter(shop));
  app.use(libraryRouter(library));
  app.use(mouldRouter(moulds));
  app.use('/api', (request) => {
    throw new ProblemError('NOT_FOUND', `There is no ${request.method} ${request.originalUrl} here.`);
  });
  if (webFolder) {
    app.use(express.static(webFolder, { index: false, maxAge: '1h' }));
    app.get('/{*page}', (_request, response) => response.sendFile('index.html', { root: webFolder }));
  }
  app.use(problemHandler(log));
  return app;
}

function problemHandler(log: Logger): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const known = knownProblem(error);
    if (!known) log.error({ err: error, path: request.path }, 'unexpected');
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
