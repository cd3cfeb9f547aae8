import { setLocal } from './local'
import { expired, leaving, lock, person, PENDING } from './person'
import { pageToken } from './token'
import { compare } from './versions'
import { whole } from './whole'

const SESSION_MS = 4000

/** Who is signed in. Without a connection it is whoever was when there last was one. */
export async function ofSession(request: Request): Promise<Response> {
  if (request.method === 'DELETE') return leave(request)
  const known = person()
  if (request.method !== 'GET' || (!known && !leaving())) return fetch(request)
  if (leaving())
    await fetch(request.url, {
      method: 'DELETE',
      headers: { 'X-CSRFToken': pageToken() ?? '' },
    }).then(left, () => undefined)
  const got = await whole(request, SESSION_MS)
  if (got && got.status < 502) {
    const told = (await got.clone().json()) as { signed_in?: boolean }
    lock(!told.signed_in)
    compare(got)
    return got
  }
  return (await withoutServer()) ?? fetch(request)
}
async function withoutServer(): Promise<Response | undefined> {
  const known = person()
  if (!known || leaving()) return undefined
  const { beginDevice, wipe } = await import('./begin')
  if (expired(known)) await wipe()
  else if (!known.locked && (await beginDevice(false))) {
    const told = { signed_in: true, name: known.name, demo: false, needs: '' }
    return new Response(JSON.stringify(told), { headers: { 'Content-Type': 'application/json' } })
  }
  return undefined
}

/** Signing out takes everything off this device, with a connection or without one. */
async function leave(request: Request): Promise<Response> {
  const { wipe } = await import('./begin')
  await wipe()
  setLocal(PENDING, true)
  const got = await fetch(request)
  left(got)
  return got
}
function left(got: Response) {
  if (got.ok || got.status === 401 || got.status === 403) setLocal(PENDING, undefined)
}
