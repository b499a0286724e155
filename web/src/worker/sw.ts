/** The service worker: the page without a line, what was seen last, and files shared to us. */
import { ExpirationPlugin } from 'workbox-expiration'
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching'
import { registerRoute } from 'workbox-routing'
import { NetworkFirst, NetworkOnly } from 'workbox-strategies'
import { isKnown } from './known'
import { FILE_NAME, KNOWN, SHARE_PATH, SHARED } from './names'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (string | PrecacheEntry)[] }

cleanupOutdatedCaches()
precacheAndRoute(self.__WB_MANIFEST, { directoryIndex: '', cleanURLs: false })

// The page itself comes from the site as long as there is a line: with its cookie and its policy.
const kept = createHandlerBoundToURL('/index.html')
const fresh = new NetworkOnly()
registerRoute(
  ({ request, url }) => request.mode === 'navigate' && !/^\/(api|admin)\//.test(url.pathname),
  (options) => fresh.handle(options).catch(() => kept(options)),
)

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && isKnown(url.pathname),
  new NetworkFirst({
    cacheName: KNOWN,
    plugins: [new ExpirationPlugin({ maxEntries: 400, purgeOnQuotaError: true })],
  }),
)

// A newer version waits until the page asks for it.
self.addEventListener('message', (event) => {
  if ((event.data as { type?: string } | null)?.type === 'SKIP_WAITING') void self.skipWaiting()
})

registerRoute(({ url }) => url.pathname === SHARE_PATH, takeShared, 'POST')

/** Files that another application shares to us wait until a project is open. */
async function takeShared({ request }: { request: Request }): Promise<Response> {
  const form = await request.formData()
  const cache = await caches.open(SHARED)
  const files = form.getAll('files').filter((one): one is File => one instanceof File)
  const stored = files.map((file, index) => {
    const headers = { 'Content-Type': file.type, [FILE_NAME]: encodeURIComponent(file.name) }
    return cache.put(`/shared/${Date.now()}-${index}`, new Response(file, { headers }))
  })
  await Promise.all(stored)
  return Response.redirect('/', 303)
}
