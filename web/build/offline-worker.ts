import { createHash } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { build, type Plugin, type Rolldown } from 'vite';

type Bundle = Rolldown.OutputBundle;
type Chunk = Rolldown.OutputChunk;

const source = fileURLToPath(new URL('../src/app/service-worker.ts', import.meta.url));

/** Where the pages of a job begin, its workers among them. */
const JOB = /\/(JobFrame\.vue|StagePage\.vue|flow\.worker\.ts)$/;
/** What few devices use and only now and then: charts, prints, files in and out, rehearsals. Fetched when it is shown, and kept from then on. */
const RARE = /apexcharts|ResinCharts|ProbeList|\/print\/|xlsx|excel|\/files\/|world\.worker|debrief/;
/** Fonts: only those that the words of the program are written in. */
const isShown = (name: string) => !name.endsWith('.woff') && !/-(latin-ext|vietnamese)-/.test(name);

const markOf = (content: string | Uint8Array) =>
  createHash('sha256').update(content).digest('hex').slice(0, 16);

/** Builds the worker that keeps the pages on a device, and the list of what it fetches once a job stands. */
export function offlineWorker(): Plugin {
  return {
    name: 'offline-worker',
    apply: 'build',
    generateBundle(_, bundle) {
      const urls = filesFrom(bundle, ({ facadeModuleId }) => JOB.test(facadeModuleId ?? ''), true);
      this.emitFile({
        type: 'asset',
        fileName: 'kept.json',
        source: JSON.stringify(urls.map((name) => `/${name}`)),
      });
    },
    async writeBundle({ dir }, bundle) {
      const page = bundle['index.html']!;
      const shell = filesFrom(bundle, ({ isEntry, name }) => isEntry && name === 'index', false);
      await build({
        configFile: false,
        logLevel: 'warn',
        define: {
          // Under assets/ the name says what is in it.
          SHELL: JSON.stringify([
            { url: '/index.html', revision: markOf(page.type === 'asset' ? page.source : '') },
            ...shell.map((name) => ({ url: `/${name}`, revision: null })),
          ]),
          PARTS: JSON.stringify(Object.keys(bundle).map((name) => `/${name}`)),
          'process.env.NODE_ENV': '"production"',
        },
        publicDir: false,
        build: {
          outDir: dir!,
          emptyOutDir: false,
          reportCompressedSize: false,
          lib: { entry: source, formats: ['iife'], name: 'worker', fileName: () => 'sw.js' },
        },
      });
    },
  };
}

/** Chunks and what they import, with their styles and fonts. @param later what they import when it is shown too, but for what is rare */
function filesFrom(bundle: Bundle, begins: (chunk: Chunk) => boolean, later: boolean): string[] {
  const chunks = Object.values(bundle).filter((file): file is Chunk => file.type === 'chunk');
  const found = new Set<string>();
  const take = (fileName: string): void => {
    const chunk = bundle[fileName];
    if (found.has(fileName) || chunk?.type !== 'chunk') return;
    found.add(fileName);
    const { importedCss, importedAssets } = chunk.viteMetadata ?? {};
    for (const name of [...(importedCss ?? []), ...(importedAssets ?? [])])
      if (isShown(name) && bundle[name]) found.add(name);
    chunk.imports.forEach(take);
    // The first one shows the way to every page there is.
    if (later && !chunk.isEntry) chunk.dynamicImports.filter((name) => !isRare(bundle, name)).forEach(take);
  };
  chunks.filter(begins).forEach(({ fileName }) => take(fileName));
  return [...found];
}

function isRare(bundle: Bundle, fileName: string): boolean {
  const chunk = bundle[fileName];
  return chunk?.type === 'chunk' && RARE.test(chunk.facadeModuleId ?? chunk.name);
}
