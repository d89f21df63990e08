import { basename, dirname, join } from 'node:path';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** Compiled, the whole server lies in one folder; from source, each file lies where it was written. Tests from source name what was compiled of it. */
const compiled = import.meta.url.endsWith('.js') ? import.meta.url : process.env.WICK_PROGRAMS;

/** Folder of this package, whether it runs compiled or from source. */
export const serverFolder = packageFolder(dirname(fileURLToPath(import.meta.url)));

/** Folder of the project, with a slash at its end. */
export const projectFolder = join(serverFolder, '..', '/');

function packageFolder(from: string): string {
  return existsSync(`${from}/package.json`) ? from : packageFolder(dirname(from));
}

/** A program of ours that runs in a thread or process of its own. */
export interface Program {
  readonly file: URL;
  /** What Node is told before it. */
  readonly execArgv: string[];
}

/** @param source where it was written; a row of server/vite.config.ts compiles it */
export function programOf(source: URL): Program {
  if (!source.pathname.endsWith('.ts')) return { file: source, execArgv: [] };
  if (!compiled) return { file: source, execArgv: ['--import', 'tsx'] };
  return { file: new URL(`./${basename(source.pathname, '.ts')}.js`, compiled), execArgv: [] };
}

/** Options of Node for a process that lives for moments: code of the embedded database is compiled as it is needed, and once. */
export const QUICK_TO_START = ['--liftoff-only', '--wasm-lazy-compilation'];
