import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { transform } from '@swc/core';

/** Hooks of Node's loader: types are taken off and nothing else is changed, so that hot loops run as fast as in the product. */
const globals = new URL('./globals.mjs', import.meta.url).href;

/** @public */
export const resolve = (specifier, context, next) =>
  specifier === '@jest/globals'
    ? { url: `${globals}?for=${encodeURIComponent(context.parentURL)}`, shortCircuit: true }
    : next(specifier, context);

/** @public */
export async function load(url, context, next) {
  const { pathname } = new URL(url);
  if (pathname.endsWith('.ts')) {
    const path = fileURLToPath(url);
    const { code } = await transform(await readFile(path, 'utf8'), {
      filename: path,
      configFile: false,
      swcrc: false,
      sourceMaps: 'inline',
      jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
      module: { type: 'es6' },
    });
    return { format: 'module', source: code, shortCircuit: true };
  }
  if (pathname.endsWith('.json'))
    return {
      format: 'module',
      source: `export default ${await readFile(fileURLToPath(url), 'utf8')}`,
      shortCircuit: true,
    };
  return next(url, context);
}
