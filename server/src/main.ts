import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './http/app.ts';
import { openDatabase } from './repo/database.ts';
import { FolderError, lockFolder } from './repo/folder-lock.ts';
import { createJobRepo } from './repo/job-repo.ts';
import { createResultRepo } from './repo/result-repo.ts';
import { createLibraryRepo } from './repo/library-repo.ts';
import { createMouldRepo } from './repo/mould-repo.ts';
import { createShopRepo } from './repo/shop-repo.ts';
import { createJobService } from './services/job-service.ts';
import { createJobUpkeep } from './services/job-upkeep.ts';
import { createLibraryService } from './services/library-service.ts';
import { createMouldService } from './services/mould-service.ts';
import { seedIfEmpty } from './services/seed.ts';
import { createShopService } from './services/shop-service.ts';

const root = fileURLToPath(new URL('../../', import.meta.url));
const folder = resolve(process.env.WICK_DATA ?? `${root}data`);
const port = Number(process.env.PORT ?? 4173);
const host = process.env.HOST ?? '127.0.0.1';
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });

/** A deleted job can be brought back for thirty days, ms. */
const KEEP_DELETED = 30 * 24 * 3600 * 1000;

async function main() {
  const unlock = lockFolder(folder);
  process.on('exit', unlock);
  const { database, close } = await openDatabase(folder).catch((error: unknown) => {
    throw new FolderError(
      `The database in ${folder} does not open (${error instanceof Error ? error.message : String(error)}). It was left as it is: copy it somewhere safe, then start with another folder (WICK_DATA) and import your job files.`,
    );
  });
  const repos = {
    jobs: createJobRepo(database),
    results: createResultRepo(database),
    shop: createShopRepo(database),
    library: createLibraryRepo(database),
    moulds: createMouldRepo(database),
  };
  await repos.jobs.clearDeleted(new Date(Date.now() - KEEP_DELETED));
  if (await seedIfEmpty(repos)) log.info('empty database: demo workshop added');
  const upkeep = createJobUpkeep(repos.jobs, createShopService(repos.shop));
  const rewritten = await upkeep.bringUpToDate();
  if (rewritten > 0) log.info(`${rewritten} jobs of an earlier version brought up to date`);
  const webFolder = `${root}web/dist`;
  const app = createApp({
    jobs: createJobService(repos, createShopService(repos.shop)),
    shop: createShopService(repos.shop, upkeep.summariseAll),
    library: createLibraryService(repos.library, repos.jobs),
    moulds: createMouldService(repos.moulds, repos.jobs),
    log,
    webFolder: existsSync(webFolder) ? webFolder : undefined,
  });
  const server = app.listen(port, host, (error?: Error) => {
    if (error)
      return fail(
        new FolderError(`Port ${port} cannot be used (${error.message}). Set PORT to another number.`),
      );
    log.info(`Vivid Wick is ready: open http://${host}:${port} in a browser`);
  });
  const stop = () => {
    server.close(() => void close().then(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 3000).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

function fail(error: unknown) {
  if (error instanceof FolderError) log.fatal(error.message);
  else log.fatal({ err: error }, 'could not start');
  process.exit(1);
}

main().catch(fail);
