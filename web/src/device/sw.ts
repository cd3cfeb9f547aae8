/// <reference lib="webworker" />
import Dexie from 'dexie'
import { createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { sendWaiting } from './outbox'
import { Store } from './store'
import { whole } from './whole'

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: { url: string; revision: string | null }[]
}

/** Keeps the page, its fonts, Python and the core, so that it starts without a network; gives photos that wait here; sends
 * what waits when there is a connection and no page is open. Answers of the server are never kept here. */
const PAGE = '/'
const PHOTOS = 'zerodip-photos'
const OTHERS = /^\/(api|health|papers|static|media)\/|^\/(favicon\.ico|robots\.txt|sw\.js)$/
const PHOTO = /^\/api\/visits\/[0-9a-f-]{36}\/photos\/([0-9a-f-]{36})$/

precacheAndRoute(self.__WB_MANIFEST, { cleanURLs: false, directoryIndex: '' })
const page = createHandlerBoundToURL(PAGE)

self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
self.addEventListener('message', ({ data }) => {
  if (data === 'take over') void self.skipWaiting()
})

self.addEventListener('fetch', (event) => {
  const { pathname } = new URL(event.request.url)
  const photo = event.request.method === 'GET' && PHOTO.exec(pathname)?.[1]
  if (event.request.mode === 'navigate' && !OTHERS.test(pathname))
    event.respondWith(page({ event, request: event.request, url: new URL(event.request.url) }))
  else if (photo) event.respondWith(photoOf(event.request, photo))
})

async function photoOf(request: Request, id: string): Promise<Response> {
  const got = await fetch(request).catch(() => undefined)
  // The server has it small as yet: this device may have it as it was taken.
  if (got?.ok && got.headers.get('Cache-Control') === 'no-store') return (await waits(id)) ?? got
  const kept = await caches.open(PHOTOS)
  if (got?.ok) await kept.put(request, got.clone()).catch(() => undefined)
  if (got && got.status < 500) return got.status === 404 ? ((await waits(id)) ?? got) : got
  return (await waits(id)) ?? (await kept.match(request)) ?? Response.error()
}
/** A photo that was not sent yet. */
async function waits(id: string): Promise<Response | undefined> {
  for (const store of await stores()) {
    const found = await store.writes.filter((each) => each.path.endsWith(id)).first()
    store.close()
    if (found?.photo) return new Response(found.photo)
  }
  return undefined
}
async function stores(): Promise<Store[]> {
  const names = await Dexie.getDatabaseNames()
  const people = names.map((name) => Number(/^zerodip-(\d+)$/.exec(name)?.[1])).filter(Boolean)
  return people.map((person) => new Store(person))
}

/** The person whose session this is sends; another's writes wait for them. */
self.addEventListener('sync', ((event: ExtendableEvent) =>
  event.waitUntil(send())) as EventListener)
async function send() {
  const got = await whole('/api/device')
  if (!got?.ok) throw new Error('no connection')
  const { person } = (await got.json()) as { person: number }
  const names = await Dexie.getDatabaseNames()
  if (!names.includes(`zerodip-${person}`)) return
  const store = new Store(person)
  const sent = await sendWaiting(store)
  store.close()
  if (sent && !sent.all && !sent.signedOut) throw new Error('not all was sent')
}
