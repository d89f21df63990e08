import { clientsClaim } from 'workbox-core';
import { CacheableResponsePlugin } from 'workbox-cacheable-response';
import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare const self: ServiceWorkerGlobalScope;
/** Put in by the build: what a first view consists of, kept from the first visit on; and the names of all parts of this version. */
declare const SHELL: { url: string; revision: string | null }[];
declare const PARTS: string[];
/** Parts that came by since: what this device has used, or fetched to have it. */
const CAME_BY = 'wick-parts';

/** A server that does not answer for so long, s, counts as away, and what was last known is shown. */
const PATIENCE = 8;

self.addEventListener('message', ({ data }) => {
  if ((data as { type?: string } | null)?.type === 'SKIP_WAITING') void self.skipWaiting();
});

self.addEventListener('activate', (event) => event.waitUntil(forgetOldParts()));
clientsClaim();
precacheAndRoute(SHELL);
cleanupOutdatedCaches();
registerRoute(({ url }) => url.pathname.startsWith('/assets/'), new CacheFirst({ cacheName: CAME_BY }));
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }));
registerRoute(
  /\/api\/runs\/[^/]+\/photos\//,
  new CacheFirst({ cacheName: 'wick-pictures', plugins: [new ExpirationPlugin({ maxEntries: 200 })] }),
);
registerRoute(
  /\/api\/(jobs|runs|materials|moulds|steps|shop|instruments|watches|standing)(\/|\?|$)/,
  new NetworkFirst({
    cacheName: 'wick-data',
    networkTimeoutSeconds: PATIENCE,
    plugins: [new ExpirationPlugin({ maxEntries: 400 }), new CacheableResponsePlugin({ statuses: [200] })],
  }),
);

async function forgetOldParts(): Promise<void> {
  const cache = await caches.open(CAME_BY);
  const current = new Set(PARTS);
  for (const request of await cache.keys())
    if (!current.has(new URL(request.url).pathname)) await cache.delete(request);
}
