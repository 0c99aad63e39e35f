/// <reference lib="webworker" />
declare const self: ServiceWorkerGlobalScope;

// Keeps the application and the last answers of the server, so that a reload works while the server is gone.
const applicationCache = 'fairwatt-application';
const answerCache = 'fairwatt-answers';

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const list = (await (await fetch('/precache.json', { cache: 'no-store' })).json()) as string[];
      const cache = await caches.open(applicationCache);
      await cache.addAll(list);
      for (const request of await cache.keys())
        if (!list.includes(new URL(request.url).pathname)) await cache.delete(request);
      await self.skipWaiting();
    })(),
  );
});
self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim());
});

/** A kept answer, marked as one: a page that has a later state on its screen does not take it. */
function asKept(answer: Response): Response {
  const headers = new Headers(answer.headers);
  // The name stands in kept-answer.ts as well; this file is loaded alone.
  headers.set('x-fairwatt-kept', '1');
  return new Response(answer.body, { status: answer.status, headers });
}

async function fresh(request: Request, key: Request | string, name: string): Promise<Response> {
  const cache = await caches.open(name);
  try {
    const response = await fetch(request);
    if (response.ok) await cache.put(key, response.clone());
    if (response.status !== 503) return response;
    const kept = await cache.match(key);
    return kept === undefined ? response : asKept(kept);
  } catch (error) {
    const kept = await cache.match(key);
    if (kept !== undefined) return asKept(kept);
    throw error;
  }
}

// A stream of events has no end that could be kept.
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (
    request.method !== 'GET' ||
    url.origin !== self.location.origin ||
    request.headers.get('accept') === 'text/event-stream' ||
    url.pathname.startsWith('/api/health') ||
    url.pathname.endsWith('/presence') ||
    url.pathname.endsWith('/file')
  )
    return;
  if (request.mode === 'navigate') event.respondWith(fresh(request, '/', applicationCache));
  else if (url.pathname.startsWith('/api/')) event.respondWith(fresh(request, request, answerCache));
  else if (url.pathname.startsWith('/assets/'))
    event.respondWith((async () => (await caches.match(request)) ?? fresh(request, request, applicationCache))());
});
