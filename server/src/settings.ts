import { resolve } from 'node:path';
import { FolderError } from './repo/embedded/folder-error.ts';

/** How the server was asked to run, by its environment. */
export interface Settings {
  readonly folder: string;
  /** A PostgreSQL server in place of the embedded database. */
  readonly databaseUrl: string | null;
  readonly host: string;
  /** 0 takes any that is free. */
  readonly port: number;
  readonly logLevel: string;
}

/** @throws FolderError on a value that is none */
export function readSettings(environment: NodeJS.ProcessEnv, root: string): Settings {
  const { PORT: port = '4173', DATABASE_URL: databaseUrl = '' } = environment;
  if (!/^\d{1,5}$/.test(port) || Number(port) > 65_535)
    throw new FolderError(`PORT is “${port}”, which is no port. Set it to a number from 0 to 65535.`);
  if (databaseUrl && !/^postgres(ql)?:\/\//.test(databaseUrl))
    throw new FolderError('DATABASE_URL has to begin with postgres://. Correct it, or leave it out.');
  return {
    folder: resolve(environment.WICK_DATA ?? `${root}data`),
    databaseUrl: databaseUrl || null,
    host: environment.HOST ?? '127.0.0.1',
    port: Number(port),
    logLevel: environment.LOG_LEVEL ?? 'info',
  };
}
