import { resolve } from 'node:path';
import { FolderError } from './repo/embedded/folder-error.ts';
import usual from './usual-address.json' with { type: 'json' };

/** How the server was asked to run, by its environment. */
export interface Settings {
  readonly folder: string;
  /** A PostgreSQL server in place of the embedded database. */
  readonly databaseUrl: string | null;
  readonly host: string;
  /** 0 takes any that is free. */
  readonly port: number;
  /** Whether others on the network can reach it. */
  readonly isOnNetwork: boolean;
  /** Further names under which it is reached. */
  readonly names: readonly string[];
  readonly tls:
    | { readonly kind: 'off' }
    | { readonly kind: 'made' }
    | { readonly kind: 'given'; readonly cert: string; readonly key: string };
  /** Set where nobody can be asked for one. */
  readonly passPhrase: string | null;
}

const LOCAL = new Set(['127.0.0.1', 'localhost', '::1']);

/** @throws FolderError on a value that is none */
export function readSettings(environment: NodeJS.ProcessEnv, root: string): Settings {
  const { PORT: port = usual.port, DATABASE_URL: databaseUrl = '' } = environment;
  if (!/^\d{1,5}$/.test(port) || Number(port) > 65_535)
    throw new FolderError(`PORT is “${port}”, which is no port. Set it to a number from 0 to 65535.`);
  if (databaseUrl && !/^postgres(ql)?:\/\//.test(databaseUrl))
    throw new FolderError('DATABASE_URL has to begin with postgres://. Correct it, or leave it out.');
  const host = environment.HOST ?? usual.host;
  const isOnNetwork = !LOCAL.has(host);
  return {
    folder: resolve(environment.WICK_DATA ?? `${root}data`),
    databaseUrl: databaseUrl || null,
    host,
    port: Number(port),
    isOnNetwork,
    names: (environment.WICK_NAMES ?? '')
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ''),
    tls: tlsOf(environment, isOnNetwork),
    passPhrase: environment.WICK_PASS_PHRASE ?? null,
  };
}

function tlsOf(
  { TLS, TLS_CERT: cert, TLS_KEY: key }: NodeJS.ProcessEnv,
  isOnNetwork: boolean,
): Settings['tls'] {
  if (cert || key) {
    if (!cert || !key) throw new FolderError('TLS_CERT and TLS_KEY belong together. Set both, or neither.');
    return { kind: 'given', cert, key };
  }
  if (TLS !== undefined && TLS !== 'off' && TLS !== 'made')
    throw new FolderError(
      `TLS is “${TLS}”. Set it to “made” or “off”, or give a certificate by TLS_CERT and TLS_KEY.`,
    );
  return { kind: (TLS as 'off' | 'made' | undefined) ?? (isOnNetwork ? 'made' : 'off') };
}
