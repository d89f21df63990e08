import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { fingerprint } from './built.mjs';
import { paceHere } from './pace.mjs';
import { build, root } from './setup.mjs';

/**
 * What tests share: the compiled server, for those that start one, and a folder for flows that these very sources have solved.
 * @public named by jest.config.js
 */
export default async function prepare() {
  await build('server');
  process.env.WICK_PACE = String(paceHere());
  process.env.WICK_PROGRAMS = pathToFileURL(`${root}server/dist/`).href;
  process.env.WICK_SOLVED = join(tmpdir(), `wick-solved-${fingerprint(root, 'server').slice(0, 16)}`);
}
