/**
 * Keeps the whole application on the device. Pages and their parts always come from the cache of
 * one version; a new version waits until the page says that no sale is under way.
 */
import { build, files, prerendered, version } from '$service-worker';

declare const self: ServiceWorkerGlobalScope;

const PREFIX = 'stall-till-shell-';
const CACHE = `${PREFIX}${version}`;
const SHELL = '/';
const parts = [...build, ...files.filter((file) => !file.endsWith('.txt')), ...prerendered];

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const cache = await caches.open(CACHE);
      await cache.addAll(parts.map((part) => new Request(part, { cache: 'reload' })));
    })(),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      // A page of the version before may still be open: its parts stay until the next update.
      const older = (await caches.keys()).filter((key) => key.startsWith(PREFIX) && key !== CACHE);
      await Promise.all(older.slice(0, -1).map((key) => caches.delete(key)));
      await self.clients.claim();
    })(),
  );
});

self.addEventListener('message', (event) => {
  if (event.data === 'take over') void self.skipWaiting();
  if (event.data === 'look after me') event.waitUntil(self.clients.claim());
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith('/api/') || url.pathname === '/healthz') return;
  event.respondWith(request.mode === 'navigate' ? page(request, url) : part(request, url));
});

/** Any page of the application: its own shell, or that of Today, which finds its way. */
async function page(request: Request, url: URL): Promise<Response> {
  const cache = await caches.open(CACHE);
  return (await cache.match(url.pathname)) ?? (await cache.match(SHELL)) ?? (await fetch(request));
}

async function part(request: Request, url: URL): Promise<Response> {
  const cache = await caches.open(CACHE);
  return (
    (await cache.match(url.pathname)) ??
    (await caches.match(url.pathname)) ??
    (await fetch(request))
  );
}
