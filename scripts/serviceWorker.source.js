/* global VERSION, FILES, self, caches, fetch */

/** Pages that are kept; which painting is shown is told by their address, and read by the page itself. */
const PAGES = ['/', '/prepare', '/easel', '/desk', '/settings'];
/** Never kept: paintings to be taken in, and what the simulated devices answer. */
const NEVER = /^\/(demo|api)\//;

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(VERSION).then((cache) => cache.addAll([...PAGES, ...FILES])));
});

self.addEventListener('activate', (event) => {
  const tidy = async () => {
    for (const name of await caches.keys())
      if (name.startsWith('stigmos-') && name !== VERSION) await caches.delete(name);
    await self.clients.claim();
  };
  event.waitUntil(tidy());
});

// a new version waits until the painter says so, or until no page of the old one is open
self.addEventListener('message', (event) => {
  if (event.data === 'use it now') self.skipWaiting();
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin || NEVER.test(url.pathname)) return;
  if (request.mode === 'navigate') event.respondWith(page(request, url));
  else if (url.pathname.startsWith('/_next/static/') || url.pathname.startsWith('/marks/'))
    event.respondWith(kept(request));
});

/** A page from the network, for it may be newer; without one, as it was kept. */
async function page(request, url) {
  try {
    return await fetch(request);
  } catch (error) {
    const cache = await caches.open(VERSION);
    const found = await cache.match(url.pathname);
    if (found) return found;
    throw error;
  }
}

/** A file whose name changes with what is in it. */
async function kept(request) {
  const cache = await caches.open(VERSION);
  const found = await cache.match(request, { ignoreSearch: true });
  // a response without an address of its own: a worker then keeps that of its request, with what is told in it
  return found ? new Response(found.body, { headers: found.headers }) : fetch(request);
}
