import { whenDifferent } from './versions'

/** The service worker keeps this page for times without a network, and notices a new version. It never takes the page over by
 * itself: whoever is in the middle of a visit says when. */
let waiting: ServiceWorker | undefined
const listeners = new Set<() => void>()

/** Tells when there is another version than this page: a new one is here, or the server is of another. */
export function onUpdate(listener: () => void): () => void {
  listeners.add(listener)
  if (waiting) listener()
  whenDifferent(() => {
    void look()
    tell()
  })
  return () => listeners.delete(listener)
}
function tell() {
  for (const each of listeners) each()
}

function found(worker: ServiceWorker | null) {
  if (!worker || !navigator.serviceWorker.controller) return
  waiting = worker
  tell()
}
const installed = (worker: ServiceWorker) =>
  new Promise<void>((done) => {
    if (worker.state === 'installed') done()
    else worker.addEventListener('statechange', () => worker.state === 'installed' && done())
  })

export async function keepPage() {
  const kept = await navigator.serviceWorker?.register('/sw.js').catch(() => undefined)
  if (!kept) return
  found(kept.waiting)
  kept.addEventListener('updatefound', () => {
    const { installing } = kept
    if (installing) void installed(installing).then(() => found(installing))
  })
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void look()
  })
}
async function look() {
  const kept = await navigator.serviceWorker?.getRegistration()
  return kept?.update().catch(() => undefined)
}

/** Puts the other version to work: what was typed is kept on this device, and what waits to be sent. */
export async function takeUpdate() {
  await look()
  const kept = await navigator.serviceWorker?.getRegistration()
  if (kept?.installing) await installed(kept.installing)
  const next = kept?.waiting ?? waiting
  navigator.serviceWorker?.addEventListener('controllerchange', () => location.reload())
  if (next) next.postMessage('take over')
  else location.reload()
}
