/// <reference lib="webworker" />
import type { WorkboxPlugin } from 'workbox-core';
import { ExpirationPlugin } from 'workbox-expiration';
import { precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { warmStrategyCache } from 'workbox-recipes';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare const self: ServiceWorkerGlobalScope & { readonly __WB_MANIFEST: (PrecacheEntry | string)[] };

// Keeps the application and the last answers of the server, so that a reload works while the server is gone.

// The names stand in kept-answer.ts as well; this file is loaded alone.
const answerCache = 'fairwatt-answers';
const keptHeader = 'x-fairwatt-kept';
/** What kept the application before the packages of today did. */
const formerCache = 'fairwatt-application';

/** A kept answer, marked as one: a page that has a later state on its screen does not take it. */
function asKept(answer: Response): Response {
  const headers = new Headers(answer.headers);
  headers.set(keptHeader, '1');
  return new Response(answer.body, { status: answer.status, headers });
}

/** The server first; what was kept where it is away, also where it says so itself and something was kept. */
const serverFirst = (cacheName: string, key?: string) =>
  new NetworkFirst({
    cacheName,
    plugins: [
      {
        ...(key !== undefined && { cacheKeyWillBeUsed: () => Promise.resolve(key) }),
        fetchDidSucceed: ({ response, state }) => {
          if (response.status !== 503) return Promise.resolve(response);
          if (state !== undefined) state['away'] = response;
          return Promise.reject(new Error('the server says that it is away'));
        },
        cachedResponseWillBeUsed: ({ cachedResponse }) =>
          Promise.resolve(cachedResponse === undefined ? undefined : asKept(cachedResponse)),
        handlerDidError: ({ state }) => Promise.resolve(state?.['away'] as Response | undefined),
      },
    ],
  });

const pages = serverFirst('fairwatt-pages', '/');

/** A stream of events has no end that could be kept, and what is asked to know the present state is never kept. */
const isKeepable = ({ headers }: Request, { pathname }: URL): boolean =>
  headers.get('accept') !== 'text/event-stream' &&
  !pathname.startsWith('/api/health') &&
  !pathname.endsWith('/presence') &&
  !pathname.endsWith('/file');

precacheAndRoute(self.__WB_MANIFEST);
warmStrategyCache({ urls: ['/'], strategy: pages });
registerRoute(new NavigationRoute(pages, { denylist: [/^\/api\//] }));
registerRoute(
  ({ url, request, sameOrigin }) => sameOrigin && url.pathname.startsWith('/api/') && isKeepable(request, url),
  serverFirst(answerCache),
);
/** Typed by its package for a compiler that takes a plugin's absent acts as undefined ones. */
const theLastThirty = new ExpirationPlugin({ maxEntries: 30 }) as WorkboxPlugin;
// What reads print and codes is large: kept by whoever uses it once.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/assets/'),
  new CacheFirst({ cacheName: 'fairwatt-readers', plugins: [theLastThirty] }),
);

self.addEventListener('install', () => void self.skipWaiting());
self.addEventListener('activate', (event) => {
  event.waitUntil(Promise.all([self.clients.claim(), caches.delete(formerCache)]));
});
