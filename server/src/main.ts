import { existsSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './http/app.ts';
import { logOptions } from './http/log.ts';
import { openStore } from './open-store.ts';
import { FolderError } from './repo/embedded/folder-error.ts';
import { createServices } from './services/services.ts';
import { readSettings } from './settings.ts';

// What is written here is for the user of this program alone.
process.umask(0o077);

const root = fileURLToPath(new URL('../../', import.meta.url));
const log = pino(logOptions(process.env.LOG_LEVEL));
/** How often it is looked whether another day has begun, ms. */
const DAY_CHECK = 3_600_000;

const today = () => new Date().toISOString().slice(0, 10);

async function main() {
  const settings = readSettings(process.env, root);
  const { database, close } = await openStore(settings, log);
  const services = createServices(database);
  const passDay = () => services.upkeep.passDay(today());
  await passDay();
  setInterval(() => void passDay().catch((error: unknown) => log.error({ err: error })), DAY_CHECK).unref();
  const rewritten = await services.upkeep.bringUpToDate();
  if (rewritten > 0) log.info(`${rewritten} jobs of an earlier version brought up to date`);
  const webFolder = `${root}web/dist`;
  const app = createApp({ ...services, log, webFolder: existsSync(webFolder) ? webFolder : undefined });
  const server = app.listen(settings.port, settings.host, (error?: Error) => {
    if (error)
      return fail(
        new FolderError(
          `Port ${settings.port} of ${settings.host} cannot be used (${error.message}). Set PORT to another number.`,
        ),
      );
    const { port } = server.address() as AddressInfo;
    log.info(`Vivid Wick is ready: open http://${settings.host}:${port} in a browser`);
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
