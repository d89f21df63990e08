import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

/** Set by the server too: a page of its own may share memory with its workers, which lets a run be given up at once. */
const isolated = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

/** A server that does not answer for so long, s, counts as away, and what was last known is shown. */
const PATIENCE = 8;

/** Installed, the program opens without the network: itself, and the job, run and library that were looked at last. */
const installable = VitePWA({
  registerType: 'prompt',
  injectRegister: false,
  manifest: {
    name: 'Vivid Wick',
    short_name: 'Vivid Wick',
    description: 'Resin infusion, planned and run',
    display: 'standalone',
    background_color: '#10181b',
    theme_color: '#10181b',
    icons: [192, 512].map((size) => ({
      src: `/icon-${size}.png`,
      sizes: `${size}x${size}`,
      type: 'image/png',
      purpose: 'any maskable' as const,
    })),
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,woff2,png}'],
    maximumFileSizeToCacheInBytes: 6_000_000,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    cleanupOutdatedCaches: true,
    runtimeCaching: [
      {
        urlPattern: /\/api\/runs\/[^/]+\/photos\//,
        handler: 'CacheFirst',
        options: { cacheName: 'wick-pictures', expiration: { maxEntries: 200 } },
      },
      {
        urlPattern: /\/api\/(jobs|runs|materials|moulds|steps|shop|instruments|watches|standing)(\/|\?|$)/,
        handler: 'NetworkFirst',
        options: {
          cacheName: 'wick-data',
          networkTimeoutSeconds: PATIENCE,
          expiration: { maxEntries: 400 },
          cacheableResponse: { statuses: [200] },
        },
      },
    ],
  },
});

export default defineConfig({
  plugins: [vue(), installable, compression({ algorithms: ['gzip', 'brotliCompress'], threshold: 1000 })],
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1600 },
  server: { proxy: { '/api': 'http://127.0.0.1:4173' }, headers: isolated },
});
