import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { CliError } from './exit-codes.ts';

/** Backups are the server's own business: it is asked in a process of its own. */
const SCRIPT = fileURLToPath(new URL('../../server/src/maintain.ts', import.meta.url));

/** Takes a backup of everything, or restores one into an empty folder. @param data the data folder, where not the usual one */
export function keep(what: 'backup' | 'restore', file: string, data: string | undefined): number {
  const { status, error } = spawnSync(process.execPath, ['--import', 'tsx', SCRIPT, what, file], {
    stdio: 'inherit',
    env: { ...process.env, ...(data === undefined ? {} : { WICK_DATA: data }) },
  });
  if (error) throw new CliError('file', `The server’s files cannot be run (${error.message}).`);
  return status === 0 ? 0 : 3;
}
