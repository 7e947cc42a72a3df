/// <reference lib="webworker" />
import { matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

/**
 * The service worker: pages open without a connection, from the files of the build that was last
 * seen. Nothing of the API is kept here; trips keep themselves.
 */
declare const self: ServiceWorkerGlobalScope & {
  __KEPT_FILES: { url: string; revision: string | null }[]
}

const PATIENCE_MS = 4000

precacheAndRoute(self.__KEPT_FILES)

registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        return await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) })
      } catch {
        return (await matchPrecache('/')) ?? Response.error()
      }
    },
    { denylist: [/^\/(api|admin|static)\//] },
  ),
)

self.addEventListener('install', () => void self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
