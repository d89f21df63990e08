import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Plugin } from 'vite';

const named = /new URL\('([^']+\.worker\.ts)', import\.meta\.url\)/g;

/**
 * Makes workers entries of the same build as the pages. What they have in common with the pages and with each other, the polygon library and
 * the schemas above all, is then one file that travels once.
 */
export function sharedWorkers(): Plugin {
  return {
    name: 'shared-workers',
    apply: 'build',
    enforce: 'pre',
    transform(code, id) {
      if (!code.includes('.worker.ts')) return null;
      return code.replace(named, (_, path: string) => {
        const source = fileURLToPath(new URL(path, pathToFileURL(id)));
        const reference = this.emitFile({ type: 'chunk', id: source, preserveSignature: false });
        return `import.meta.ROLLUP_FILE_URL_${reference}`;
      });
    },
  };
}
