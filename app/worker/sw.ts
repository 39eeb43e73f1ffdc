/// <reference lib="webworker" />
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'

declare const self: ServiceWorkerGlobalScope

/**
 * Lets the bench reload without the server: its files come from the precache, a navigation to it from the last shell.
 * The shell is rendered in the browser, so it holds no customer; Practice is drawn so too, and the Floor borrows it
 * while the server is away. Nothing else is cached: other pages need the server.
 */
precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

const SHELL_CACHE = 'bench-shell-1'
const SHELL = '/jobs/shell'

self.addEventListener('install', () => {
  void self.skipWaiting()
})
self.addEventListener('activate', event => {
  event.waitUntil(self.clients.claim())
})

self.addEventListener('fetch', event => {
  const { request } = event
  if (request.mode !== 'navigate') return
  const { pathname } = new URL(request.url)
  if (drawnHere(pathname)) event.respondWith(shell(request, true))
  else if (pathname === '/') event.respondWith(shell(request, false))
})

/** Pages drawn in the browser, whose document is the same for everybody: a bench, and Practice. */
const drawnHere = (path: string): boolean =>
  (path.startsWith('/jobs/') && !path.endsWith('.pdf')) || path === '/practice' || path.startsWith('/practice/')

async function shell(request: Request, keep: boolean): Promise<Response> {
  const cache = await caches.open(SHELL_CACHE)
  try {
    const response = await fetch(request)
    if (keep && response.ok && !response.redirected) await cache.put(SHELL, response.clone())
    return response
  } catch {
    return (await cache.match(SHELL)) ?? Response.error()
  }
}
