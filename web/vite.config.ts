import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { offlineWorker } from './build/offline-worker.ts';
import { sharedWorkers } from './build/shared-workers.ts';
import { tellProgress } from './build/tell-progress.ts';

/** Set by the server too: a page of its own may share memory with its workers, which lets a run be given up at once. */
const isolated = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  plugins: [sharedWorkers(), vue(), offlineWorker(), tellProgress()],
  worker: { format: 'es' },
  build: {
    chunkSizeWarningLimit: 1600,
    reportCompressedSize: false,
    modulePreload: {
      // A worker has no document to put a link into.
      resolveDependencies: (_file, parts, { hostId }) => (hostId.includes('.worker') ? [] : parts),
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4173' }, headers: isolated },
});
