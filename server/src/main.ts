import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { isIPv6, type AddressInfo } from 'node:net';
import type { Express } from 'express';
import { pino } from 'pino';
import { createApp } from './http/app.ts';
import { OWN_NAMES } from './http/guard.ts';
import { logOptions } from './http/log.ts';
import { createRescueApp } from './http/rescue-app.ts';
import { certificateOf, namesOnNetwork, type Certificate } from './http/tls.ts';
import { makeDatabase } from './make-database.ts';
import { DamagedError, openEmbeddedStore, openServerStore, type Store } from './open-store.ts';
import { projectFolder } from './own-files.ts';
import { createBackupRepo } from './repo/backup-repo.ts';
import { FolderError } from './repo/embedded/folder-error.ts';
import { installDatabase, takeFolder, type DataFolder } from './repo/embedded/folder.ts';
import { checkBackup } from './services/backup/backup-file.ts';
import { createBackupService, stamp } from './services/backup/backup-service.ts';
import { ProblemError } from './services/problem.ts';
import { salvage } from './services/backup/salvage.ts';
import { createJobReader } from './services/reading/job-reader.ts';
import { createServices } from './services/services.ts';
import { requirePassPhrase } from './ask-pass-phrase.ts';
import { readSettings, type Settings } from './settings.ts';

// What is written here is for the user of this program alone.
process.umask(0o077);

const log = pino(logOptions(process.env.LOG_LEVEL));
/** How often it is looked whether another day has begun, ms; and how long after a start the first backup waits. */
const DAY_CHECK = 3_600_000;
const FIRST_BACKUP_AFTER = 60_000;

const today = () => new Date().toISOString().slice(0, 10);
let closeStore: () => Promise<void> = async () => undefined;

async function main() {
  const settings = readSettings(process.env, projectFolder);
  const folder = takeFolder(settings.folder);
  process.on('exit', folder.unlock);
  try {
    const { databaseUrl } = settings;
    await run(
      settings,
      folder,
      await (databaseUrl ? openServerStore(databaseUrl, log) : openEmbeddedStore(folder, log)),
    );
  } catch (error) {
    if (!(error instanceof DamagedError)) throw error;
    await rescue(settings, folder, error.message);
  }
}

async function run(settings: Settings, folder: DataFolder, store: Store) {
  closeStore = store.close;
  const reader = createJobReader();
  const onFault = (error: unknown) => log.error({ err: error }, 'unexpected, by itself');
  const services = createServices(store.database, reader, onFault, folder.photos);
  const backups = createBackupService(createBackupRepo(store.database), {
    folder: folder.backups,
    passing: folder.passing,
    photos: folder.photos,
  });
  const passDay = async () => {
    await services.upkeep.passDay(today());
    await backups.makeNightly();
  };
  const keepDays = () =>
    void passDay().catch((error: unknown) => log.error({ err: error }, 'no nightly backup'));
  setTimeout(keepDays, FIRST_BACKUP_AFTER).unref();
  setInterval(keepDays, DAY_CHECK).unref();
  const rewritten = await services.upkeep.bringUpToDate();
  if (rewritten > 0) log.info(`${rewritten} jobs of an earlier version brought up to date`);
  if (settings.isOnNetwork) await requirePassPhrase(services.access, settings);
  const names = [...settings.names, ...(settings.isOnNetwork ? namesOnNetwork() : [])];
  const certificate = await certificateOf(settings, folder.root, names);
  await services.goOn();
  const restore = async (backup: string) => {
    const keptAs = await store.restore(backup);
    await services.goOn();
    return keptAs;
  };
  await reader.ready;
  await addressGivenUp();
  const webFolder = `${projectFolder}web/dist`;
  const app = createApp({
    ...services,
    log,
    hosts: hostsOf(names),
    isOnNetwork: settings.isOnNetwork,
    isSecure: certificate !== null,
    backup: { backups, passing: folder.passing, restore },
    webFolder: existsSync(webFolder) ? webFolder : undefined,
    onCompressed: (listen) => process.on('message', (word) => word === 'compressed' && listen()),
  });
  const server = await listen(app, settings, certificate);
  const address = addressOf(server, settings, certificate);
  folder.tellAddress(address);
  log.info(`Vivid Wick is ready: open ${address} in a browser`);
  if (settings.isOnNetwork) log.info(`on the network: ${names.join(', ')}`);
  if (certificate) log.info(`fingerprint of its certificate (SHA-256): ${certificate.fingerprint}`);
}

/** `npm start` tells at our address what is being got ready, and gives it up when asked, with the pages built. */
let givenUp: Promise<unknown> | null = null;
function addressGivenUp() {
  if (!process.send) return Promise.resolve();
  givenUp ??= new Promise((resolve) => {
    process.once('message', resolve);
    process.send!('the records are open');
  });
  return givenUp;
}

const hostsOf = (names: readonly string[]) =>
  new Set([...OWN_NAMES, ...names.map((name) => (isIPv6(name) ? `[${name}]` : name))]);

/** Until the last backup has been restored. For this machine alone: who may come in is not known without the database. */
async function rescue(settings: Settings, folder: DataFolder, what: string) {
  const own = { ...settings, host: '127.0.0.1' };
  log.fatal(`The database in ${folder.database} is damaged: ${what}. It was left as it is.`);
  const backups = createBackupService(
    { readAll: async () => undefined },
    {
      folder: folder.backups,
      passing: folder.passing,
      photos: folder.photos,
    },
  );
  const app = createRescueApp({
    what,
    hosts: OWN_NAMES,
    backups: backups.nightlies(),
    salvage: (onChunk) => salvage(folder, onChunk),
    async restore(name) {
      const backup = backups.pathOf(name);
      if (!backup) throw new ProblemError('NOT_FOUND', 'This backup is no longer in the data folder.');
      await checkBackup(backup);
      await makeDatabase(folder, backup);
      installDatabase(folder, `database damaged ${stamp(new Date())}`);
      setTimeout(() => {
        server.close(
          () =>
            void openEmbeddedStore(folder, log)
              .then((store) => run(settings, folder, store))
              .catch(fail),
        );
        server.closeAllConnections();
      }, 500);
    },
  });
  await addressGivenUp();
  const server = await listen(app, own);
  log.info(
    `Open ${addressOf(server, own)} on this machine in a browser: it offers the last backup, and to save what can be read.`,
  );
}

function listen(
  app: Express,
  { host, port }: Settings,
  certificate: Certificate | null = null,
): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = certificate ? createSecureServer(certificate, app) : createServer(app);
    server.once('error', (error) =>
      reject(
        new FolderError(
          `Port ${port} of ${host} cannot be used (${error.message}). Set PORT to another number.`,
        ),
      ),
    );
    server.listen(port, host, () => {
      stopWith(server);
      resolve(server);
    });
  });
}

const addressOf = (server: Server, { host }: Settings, certificate: Certificate | null = null) =>
  `${certificate ? 'https' : 'http'}://${host === '0.0.0.0' ? 'localhost' : host}:${(server.address() as AddressInfo).port}`;

function stopWith(server: Server) {
  const stop = () => {
    server.close(() => void closeStore().then(() => process.exit(0)));
    server.closeIdleConnections();
    // Streams and idle browsers hold on; the store is closed all the same, so that nothing has to be mended at the next start.
    setTimeout(() => server.closeAllConnections(), 500).unref();
    setTimeout(() => process.exit(0), 3000).unref();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  // Started by another program, and left alone by it.
  process.once('disconnect', stop);
  process.send?.('answering');
}

function fail(error: unknown) {
  if (error instanceof FolderError) log.fatal(error.message);
  else log.fatal({ err: error }, 'could not start');
  process.exit(1);
}

main().catch(fail);
