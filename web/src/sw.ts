/// <reference lib="webworker" />
import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import type { WorkboxPlugin } from 'workbox-core/types';

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: { url: string; revision: string | null }[];
};

// Workbox's own types don't agree about a callback that isn't there.
const few = new ExpirationPlugin({ maxEntries: 80 }) as WorkboxPlugin;

// Once opened, the pages open again without the server, and a bench stands where it stood.
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }));
registerRoute(
  ({ url }) =>
    /^\/api\/(me|styles|sizes\/scales|mandrels|batches(\/[0-9a-f-]{36})?|jobs(\/[0-9a-f-]{36})?)$/.test(url.pathname),
  new NetworkFirst({ cacheName: 'records', plugins: [few] }),
);
self.addEventListener('install', () => void self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
