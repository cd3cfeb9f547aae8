import { AWAY, STALE } from './answers'
import { about } from './routes'
import { smallOf } from './small'
import type { Shown, Store, Write } from './store'
import { whole } from './whole'

/** Sends what waits, in order, one after the other; by the page, or by the service worker when no page is open. Whoever has
 * the lock sends: two tabs never send twice. */
const LOCK = 'zerodip-send'
const WAIT_MS = 60_000
const AT_ONCE = 50
const SIDE_BY_SIDE = 5
/** From here on photos are first sent small: all that was recorded is there, whatever the line, before the large ones begin. */
const MANY_BYTES = 150_000
const MOST_BREAKS = 5
const isAway = (status: number) => status === 500 || AWAY.includes(status)

export interface Sent {
  /** Whether all is sent; if not, it is tried again later. */
  all: boolean
  /** The session has ended: sending goes on after signing in. */
  signedOut: boolean
  systems: Set<string>
}

/** Calls back after each round that was sent. */
export async function sendWaiting(
  store: Store,
  onround: () => void = () => undefined,
): Promise<Sent | undefined> {
  return navigator.locks.request(LOCK, { ifAvailable: true }, (lock) =>
    lock ? sendAll(store, onround) : undefined,
  )
}

async function sendAll(store: Store, onround: () => void): Promise<Sent> {
  const systems = new Set<string>()
  for (let most = AT_ONCE; ;) {
    const next = nextOf(await store.writes.where('done').equals(0).sortBy('seq'), most)
    if (!next.length) return { all: true, signedOut: false, systems }
    const answers = next[0]!.photo ? await photosSent(store, next) : await sentAtOnce(store, next)
    if (answers === 'away') return { all: false, signedOut: false, systems }
    if (answers === 'signed out') return { all: false, signedOut: true, systems }
    if (answers === 'refused' && most > 1) {
      most = 1 // together they are too much, or one of them is nothing that a server reads
      continue
    }
    for (const [at, answer] of (answers === 'refused' ? [REFUSED] : answers).entries()) {
      const stuck = answer.status === 500 && (await stuckOn(store, next[at]!))
      if (isAway(answer.status) && !stuck) return { all: false, signedOut: false, systems }
      if (answer.status === 401) return { all: false, signedOut: true, systems }
      systems.add(next[at]!.system)
      await settle(store, next[at]!, answer)
    }
    onround()
  }
}

/** Whether a server breaks on a write again and again: then it must not hold up the others for ever. */
async function stuckOn(store: Store, write: Write): Promise<boolean> {
  const tries = (write.tries ?? 0) + 1
  await store.writes.update(write.seq!, { tries })
  return tries >= MOST_BREAKS
}

/** What goes next: all that can be told at once, then the photos side by side; a visit is closed after both, and photos that
 * were sent small follow as they are. */
function nextOf(waiting: Write[], most: number): Write[] {
  const rest = waiting.filter((each) => !each.draft)
  const closing = rest.findIndex((each) => each.path.endsWith('/closed'))
  const before = closing < 0 ? rest : rest.slice(0, closing)
  const told = before.filter((each) => !each.photo)
  if (told.length) return told.slice(0, most)
  if (before.length) return areMany(before) ? before : before.slice(0, SIDE_BY_SIDE)
  return rest.length ? rest.slice(0, 1) : waiting.slice(0, SIDE_BY_SIDE)
}
const areMany = (photos: Write[]) =>
  photos.reduce((sum, each) => sum + each.photo!.size, 0) > MANY_BYTES

interface Answer {
  status: number
  body: Made & Refusal
}
const REFUSED: Answer = { status: 422, body: { title: 'The server could not read this' } }
type Answers = Answer[] | 'away' | 'signed out' | 'refused'

async function sentAtOnce(store: Store, writes: Write[]): Promise<Answers> {
  const told = writes.map(({ method, path, body, at }) => ({
    ...{ method, path, body: body ?? null, made: at },
  }))
  const body = JSON.stringify({ writes: told, sent: new Date().toISOString() })
  const got = await sent(store, 'POST', '/api/device/writes', body, 'application/json', {})
  const standing = await standingOf(got)
  if (standing) return standing
  return got!.ok ? ((await got!.json()) as Answer[]) : 'refused'
}

/** Photos, side by side: each is large, and none waits for another. Many are first sent small. */
async function photosSent(store: Store, writes: Write[]): Promise<Answers> {
  const many = areMany(writes)
  const sending = writes.map(async (write) => {
    const small = many && !write.draft ? await smallOf(write.photo!) : undefined
    write.draft = small ? 1 : undefined
    const { method, path, query, photo, at } = write
    const made = { 'Zerodip-Made': at, 'Zerodip-Sent': new Date().toISOString() }
    const draft = small ? `${query ? '&' : '?'}draft=true` : ''
    const got = await sent(
      store,
      method,
      `${path}${query}${draft}`,
      small ?? photo!,
      photo!.type,
      made,
    )
    return (await standingOf(got)) ?? { status: got!.status, body: await bodyOf(got!) }
  })
  const answers = await Promise.all(sending)
  // What arrived is settled; the others are sent again.
  const back = answers.find((each) => typeof each === 'string')
  if (back === undefined) return answers as Answer[]
  for (const [at, answer] of answers.entries())
    if (typeof answer !== 'string') await settle(store, writes[at]!, answer)
  return back
}

async function sent(
  store: Store,
  method: string,
  address: string,
  body: BodyInit,
  type: string,
  more: Record<string, string>,
): Promise<Response | undefined> {
  const headers = {
    'Content-Type': type,
    'X-CSRFToken': (await store.get<string>('token')) ?? '',
    'Zerodip-Person': String(store.person),
    ...more,
  }
  return whole(address, WAIT_MS, { method, headers, body, credentials: 'same-origin' })
}

/** Why nothing more can be sent now, if so. */
async function standingOf(got: Response | undefined): Promise<'away' | 'signed out' | undefined> {
  if (!got || isAway(got.status)) return 'away'
  const out = got.status === 401 || (got.status === 403 && (await isToken(got)))
  return out ? 'signed out' : undefined
}
const bodyOf = async (got: Response) => (await got.json().catch(() => ({}))) as Made & Refusal

const isToken = async (answer: Response) => (await bodyOf(answer.clone())).title === STALE

async function settle(store: Store, write: Write, { status, body }: Answer) {
  if (status < 300) {
    await rename(store, write, body)
    if (write.draft) return void (await store.writes.update(write.seq!, { draft: 1 }))
    if (write.photo) await keepPhoto(write)
    const otherwise = write.shown && differs(write.shown, body)
    if (otherwise) await store.refused.add({ ...write, seq: undefined, ...otherwise })
    await store.writes.update(write.seq!, { done: 1, photo: undefined })
    return
  }
  const { entry, value, by } = body.current ?? {}
  await store.transaction('rw', store.writes, store.refused, store.clashes, async () => {
    await store.writes.delete(write.seq!)
    const { visit } = about(write.path)
    const { slot, value: yours } = (write.body ?? {}) as Record<string, unknown>
    if (status === 409 && typeof entry === 'string' && visit)
      await store.clashes.add({ visit, clash: { slot, entry, value, yours, by: by ?? '' } })
    else await store.refused.add({ ...write, seq: undefined, ...reason(body, status) })
  })
}
interface Made {
  id?: string
  verdict?: string
  figures?: Record<string, number | null>
}
/** What the server worked out otherwise than this device had shown: said, not hidden. The last digits may differ by processor. */
function differs(shown: Shown, made: Made) {
  const apart = Object.entries(made.figures ?? {}).filter(([id, value]) => {
    const here = shown.figures[id] ?? null
    if (here === null || value === null) return here !== value
    return Math.abs(here - value) > 1e-9 * Math.max(Math.abs(here), Math.abs(value))
  })
  const names = apart.map(([id]) => id)
  if (made.verdict !== undefined && made.verdict !== shown.verdict) names.push('verdict')
  if (!names.length) return undefined
  const title = 'The server worked out otherwise than this device'
  return { title, detail: `${names.join(', ')}. What the server says is on record.` }
}
async function keepPhoto({ path, photo }: Write) {
  const kept = await globalThis.caches?.open('zerodip-photos')
  await kept?.put(path, new Response(photo)).catch(() => undefined)
}
interface Refusal {
  title?: string
  detail?: string
  faults?: { message: string }[]
  current?: Record<string, unknown> | null
}
const reason = ({ title, detail, faults }: Refusal, status: number) => ({
  title: title ?? `Refused (${status})`,
  detail: faults?.length ? faults.map((each) => each.message).join(' ') : (detail ?? ''),
})

/** Where two people opened a visit on one system, both without a connection, they walk the one that arrived first. */
async function rename(store: Store, write: Write, made: Made) {
  const { system, visit } = about(write.path)
  if (!system || !visit || !made.id || made.id === visit) return
  const theirs = made.id
  await store.writes
    .where('done')
    .equals(0)
    .modify((each) => {
      each.path = each.path.replace(visit, theirs)
    })
  await store.set(`visit ${visit}`, theirs)
}
