import { CacheFirst, ExpirationPlugin, NetworkFirst, Serwist, type PrecacheEntry, type SerwistGlobalConfig } from 'serwist';

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
  }
}
declare const self: ServiceWorkerGlobalScope;

const DAY_S = 24 * 3600;
/** Stations that work with no network: their pages open again from the last time they were open. */
const isOffline = (path: string) => /^\/jobs\/[0-9a-f-]+\/(survey|floor)$/.test(path);

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
      matcher: ({ url }) => url.pathname.startsWith('/_next/static/'),
      handler: new CacheFirst({ cacheName: 'static', plugins: [new ExpirationPlugin({ maxEntries: 400, maxAgeSeconds: 60 * DAY_S })] }),
    },
    {
      matcher: ({ url }) => url.pathname.startsWith('/api/photos/'),
      handler: new CacheFirst({ cacheName: 'photos', plugins: [new ExpirationPlugin({ maxEntries: 100 })] }),
    },
  ],
  fallbacks: { entries: [{ url: '/offline.html', matcher: ({ request }) => request.destination === 'document' }] },
});

serwist.addEventListeners();
