/**
 * Keeps the whole application on the device. Pages and their parts always come from the cache of
 * one version; a new version waits until the page says that no sale is under way.
 */
import { build, files, prerendered, version } from '$service-worker';
import { gather } from './gather';

declare const self: ServiceWorkerGlobalScope;

const PREFIX = 'stall-till-shell-';
const CACHE = `${PREFIX}${version}`;
const SHELL = '/';
/** Marks the parts of a version that pages have been opened with; no page's address. */
const IN_USE = '/service-worker.js?in-use';
const parts = [...build, ...files.filter((file) => !file.endsWith('.txt')), ...prerendered];

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const cache = await caches.open(CACHE);
      const fetching = (request: Request): Promise<Response> => fetch(request);
      const parcels = `/_app/parcels/${version}.json`;
      const { origin } = self.location;
      await gather({ parts, parcels, cache, older: await olderVersions(), fetching, origin });
    })(),
  );
});

/** A new device has none, and is not asked about each part. */
async function olderVersions(): Promise<Pick<Cache, 'match'>> {
  return (await olderNames()).length > 0 ? caches : { match: () => Promise.resolve(undefined) };
}

const olderNames = async (): Promise<string[]> =>
  (await caches.keys()).filter((key) => key.startsWith(PREFIX) && key !== CACHE);

self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      const older = await olderNames();
      const before = await inUseLast(older);
      await Promise.all(older.filter((key) => key !== before).map((key) => caches.delete(key)));
      await (await caches.open(CACHE)).put(IN_USE, new Response(''));
      await self.clients.claim();
    })(),
  );
});

/**
 * Of older versions the one before this, of which a page may still be open: its parts stay until the next update.
 * Those that never were in use are not all here.
 */
async function inUseLast(older: readonly string[]): Promise<string | undefined> {
  const used: string[] = [];
  for (const key of older)
    if ((await (await caches.open(key)).match(IN_USE)) !== undefined) used.push(key);
  return used.at(-1) ?? older.at(-1);
}

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
