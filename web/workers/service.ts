import { CacheFirst, ExpirationPlugin, NetworkFirst, Serwist, type PrecacheEntry, type SerwistGlobalConfig } from 'serwist';

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
  }
}
declare const self: ServiceWorkerGlobalScope;

const DAY_S = 24 * 3600;
/** Stations that work with no network: their pages open again from the last time they were open. */
/** path that it is served under; empty: at the root */
const BASE = new URL(self.registration.scope).pathname.replace(/\/$/, '');
const isOffline = (path: string) =>
  path.startsWith(`${BASE}/jobs/`) && /\/jobs\/[0-9a-f-]+\/(survey|floor|prove|prove\/power|prove\/milestones)$/.test(path);

const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  skipWaiting: true,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ request, url }) => request.mode === 'navigate' && isOffline(url.pathname),
      handler: new NetworkFirst({
        cacheName: 'pages',
        networkTimeoutSeconds: 5,
        plugins: [new ExpirationPlugin({ maxEntries: 40, maxAgeSeconds: 30 * DAY_S })],
      }),
    },
    {
      matcher: ({ url }) => url.pathname.startsWith(`${BASE}/_next/static/`),
      handler: new CacheFirst({ cacheName: 'static', plugins: [new ExpirationPlugin({ maxEntries: 400, maxAgeSeconds: 60 * DAY_S })] }),
    },
    {
      matcher: ({ url }) => url.pathname.startsWith(`${BASE}/api/photos/`),
      handler: new CacheFirst({ cacheName: 'photos', plugins: [new ExpirationPlugin({ maxEntries: 100 })] }),
    },
  ],
  fallbacks: { entries: [{ url: `${BASE}/offline.html`, matcher: ({ request }) => request.destination === 'document' }] },
});

serwist.addEventListeners();
