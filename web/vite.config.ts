import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

/** Set by the server too: a page of its own may share memory with its workers, which lets a run be given up at once. */
const isolated = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  plugins: [vue(), compression({ algorithms: ['gzip', 'brotliCompress'], threshold: 1000 })],
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1600 },
  server: { proxy: { '/api': 'http://127.0.0.1:4173' }, headers: isolated },
});
