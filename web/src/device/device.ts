import { nearlyFull, wake } from './browser'
import type { Desk } from './core.worker'
import { answered } from './ask'
import { sendWaiting } from './outbox'
import { pageToken } from './token'
import { person, setPerson } from './person'
import { about, isRead, isWrite, LISTS } from './routes'
import { whole } from './whole'
import { packed, unpacked, type Shown, type Store, type Write } from './store'

/** What this device holds for one person, and what waits there to be sent. Questions go to the server; where it is not
 * reached, or where something waits, the core answers from here. */
const READ_MS = 8000
const WRITE_MS = 15_000
const AT_ONCE = 25
const SOON_MS = 5000
const UNREACHED = [502, 503, 504]
const PAUSES_MS = [2000, 5000, 15_000, 30_000, 60_000, 120_000]
const channel = new BroadcastChannel('zerodip')

export interface Standing {
  waiting: number
  /** Of those, the photos that the server has small. */
  following: number
  refused: number
  reached: boolean
  systems: number
  contact: number
  /** The session has ended: what waits goes on after signing in. */
  signedOut: boolean
  /** Why nothing more can be held here, if so. */
  full: string
}
type Listener = (standing: Standing, systems: string[]) => void
interface HeldWorkspace {
  id: string
  met: unknown
}
type Held = { id: string; visits: { id: string }[] }
export interface Told {
  heard: number
  person: number
  name: string
  at: string
  days: number
  workspaces: unknown[]
  systems: { id: string; stamp: string }[]
}

export class Device {
  #core: Promise<Pick<Desk, 'offline'>>
  #listeners = new Set<Listener>()
  #reached = true
  #full = ''
  #signedOut = false
  #failed = 0
  #later: ReturnType<typeof setTimeout> | undefined
  #taking: Promise<void> | undefined
  #last = 0
  #soon: ReturnType<typeof setTimeout> | undefined
  #listing: Promise<void> | undefined

  constructor(
    readonly store: Store,
    core: Promise<Pick<Desk, 'offline'>>,
  ) {
    this.#core = core
    channel.onmessage = ({ data }) => void this.#tell(data as string[], false)
    addEventListener('online', () => void this.send())
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') void this.send()
    })
  }

  onchange(listener: Listener): () => void {
    this.#listeners.add(listener)
    void this.#tell([], false)
    return () => this.#listeners.delete(listener)
  }
  /** Tells how the device stands. Once the person has signed out there is nothing to tell. */
  async #tell(systems: string[], others = true) {
    if (!this.store.isOpen()) return
    if (others) channel.postMessage(systems)
    const counted = await Promise.all([
      this.store.waiting(),
      this.store.following(),
      this.store.refused.count(),
      this.store.held.count(),
    ]).catch(this.#unlessClosed)
    if (!counted) return
    const [waiting, following, refused, held] = counted
    const contact = person()?.contact ?? 0
    const own = { reached: this.#reached, signedOut: this.#signedOut, full: this.#full }
    const standing = { waiting, following, refused, systems: held, contact, ...own }
    for (const each of this.#listeners) each(standing, systems)
  }

  /** Answers a request of the page; undefined where it is none that a device knows. */
  async ask(request: Request): Promise<Response | undefined> {
    const { pathname, search } = new URL(request.url)
    const path = await this.#known(pathname)
    const here = path === pathname ? request : new Request(`${path}${search}`, request)
    if (isRead(request.method, path)) return this.#read(here, path, search)
    if (isWrite(request.method, path)) return this.#write(here, path, search)
    return undefined
  }
  /** A path by the visit's own id, where it was opened under another here. */
  async #known(path: string) {
    const { visit } = about(path)
    const theirs = visit && (await this.store.get<string>(`visit ${visit}`))
    return theirs ? path.replace(visit, theirs) : path
  }

  async #read(request: Request, path: string, search: string): Promise<Response> {
    if (await this.#concerned(path)) {
      void this.send()
      const here = await this.#here('GET', path, search)
      return here.status === 404 ? ((await this.#fetched(request, READ_MS)) ?? here) : here
    }
    const got = await this.#fetched(request, READ_MS)
    if (!got) return this.#here('GET', path, search)
    const list = Object.values(LISTS).find((each) => path === `/api/${each}`)
    if (got.ok && list) void this.#keep(path, await got.clone().text())
    return got
  }

  /** Whether something waits that the answer has to hold: of the system asked about; of any, where a list is asked for. */
  async #concerned(path: string): Promise<boolean> {
    const system = await this.#systemOf(path)
    const waiting = await this.store.writes.where('done').equals(0).toArray()
    return waiting.some((each) => !system || !each.system || each.system === system)
  }

  async #write(request: Request, path: string, search: string): Promise<Response> {
    const write = await this.#noted(request.clone(), path, search)
    if (!(await this.store.waiting())) {
      const got = await this.#fetched(request, WRITE_MS)
      if (got?.ok) await this.#sent(write)
      if (got) return got
    }
    const answer = await this.#here(request.method, path, search, write)
    if (answer.status === 404) return (await this.#fetched(request, WRITE_MS)) ?? answer
    if (!answer.ok) return answer
    if (path.includes('/decisions/')) write.shown = (await answer.clone().json()) as Shown
    if (!(await this.#add(write))) throw new TypeError('nothing more can be kept on this device')
    this.#listing = this.#list().catch(() => undefined)
    void this.#tell([write.system])
    this.#again()
    return answer
  }
  /** A write that went straight through: what is held is behind by it until it is fetched again. */
  async #sent(write: Write) {
    await this.#add({ ...write, done: 1, photo: undefined })
    clearTimeout(this.#soon)
    this.#soon = setTimeout(() => void this.take(), SOON_MS)
    channel.postMessage([write.system])
  }
  async #add(write: Write): Promise<boolean> {
    try {
      await this.store.writes.add(write)
      if (write.photo) this.#full = await nearlyFull()
      return true
    } catch (error) {
      this.#full = String((error as Error).name)
      void this.#tell([])
      return false
    }
  }
  async #noted(request: Request, path: string, search: string): Promise<Write> {
    const photo = path.includes('/photos/') ? await request.blob() : undefined
    const text = photo ? '' : await request.text()
    const plate = new URLSearchParams(search).get('plate') ?? 'other'
    const body: unknown = photo ? { plate } : text ? JSON.parse(text) : undefined
    this.#last = Math.max(Date.now(), this.#last + 1)
    return {
      id: crypto.randomUUID?.() ?? String(this.#last),
      system: await this.#systemOf(path),
      method: request.method,
      path,
      query: search,
      body,
      photo,
      at: new Date(this.#last).toISOString(),
      done: 0,
    }
  }
  /** The system that a path is about, by what is held or was opened here; empty for sites. */
  async #systemOf(path: string): Promise<string> {
    const { system, visit } = about(path)
    if (system) return system
    if (!visit) return ''
    const held = await this.store.held.where('visits').equals(visit).first()
    if (held) return held.id
    const opened = await this.store.writes.filter((each) => each.path.endsWith(`/visits/${visit}`))
    return (await opened.first())?.system ?? ''
  }

  /** The server's answer; undefined where it is not reached. */
  async #fetched(request: Request, most: number): Promise<Response | undefined> {
    const got = await whole(request, most)
    const reached = got !== undefined && !UNREACHED.includes(got.status)
    if (reached !== this.#reached) {
      this.#reached = reached
      void this.#tell([], false)
    }
    return reached ? got : undefined
  }

  /** An answer without the server. Lists are as they were last told, or as they were worked out after the last write here, so
   * that Rounds is there before Python is. */
  async #here(method: string, path: string, search: string, write?: Write): Promise<Response> {
    await this.#listing
    const kept =
      (await this.store.answers.get(`here ${path}`)) ?? (await this.store.answers.get(path))
    return kept && !write
      ? answered(`200\n${kept.body}`)
      : answered(await this.#worked(method, path, search, write))
  }
  /** The core's answer, from what is held and what waits. */
  async #worked(method: string, path: string, search: string, write?: Write): Promise<string> {
    const core = await this.#core
    const offset = (await this.store.get<number>('offset')) ?? 0
    const time = (at: string | number) => new Date(new Date(at).getTime() + offset).toISOString()
    const by = person()?.name ?? ''
    const system = await this.#systemOf(path)
    const all = await this.store.writes.orderBy('seq').toArray()
    const ours = [...all, ...(write ? [write] : [])].filter(
      (each) => !system || !each.system || each.system === system,
    )
    const ids = [...new Set(system ? [system] : ours.map((each) => each.system))]
    const rows = (await this.store.held.bulkGet(ids)).filter((row) => row !== undefined)
    const held = await Promise.all(rows.map((row) => unpacked(row.packed)))
    const lists = await Promise.all(
      Object.entries(LISTS).map(async ([name, list]) => {
        const kept = await this.store.answers.get(`/api/${list}`)
        const none = name === 'rounds' ? '{"sites":[],"workspaces":[]}' : '[]'
        return `"${name}":${kept?.body ?? none}`
      }),
    )
    const workspaces = (await this.store.get<string>('workspaces')) ?? '[]'
    const asked = JSON.stringify({
      method,
      path,
      query: Object.fromEntries(new URLSearchParams(search)),
      now: time(Date.now()),
      writes: ours.map(({ id, at, method, path, body }) => ({
        ...{ id, at: time(at), by, method, path, body: body ?? null },
      })),
    })
    const parts = [`"systems":[${held.join()}]`, `"workspaces":${workspaces}`, ...lists]
    return core.offline(`${asked.slice(0, -1)},"held":{${parts.join()}}}`)
  }
  /** The lists with what was written here since the server told them. */
  async #list() {
    const text = await this.#worked('GET', '/lists', '')
    if (!text.startsWith('200')) return
    const lists = JSON.parse(text.slice(4)) as Record<string, unknown>
    for (const [name, list] of Object.entries(LISTS))
      await this.#keep(`here /api/${list}`, JSON.stringify(lists[name]))
  }

  async #keep(path: string, body: string) {
    await this.store.answers.put({ path, body }).catch(() => undefined)
  }

  /** Sends what waits, then takes along what changed; again with growing pauses while that fails. */
  send(): Promise<void> {
    return this.#sendOn().catch(this.#unlessClosed)
  }
  /** Signing out closes the store under whatever is still under way; anything else is a fault. */
  #unlessClosed = (error: unknown) => {
    if (this.store.isOpen()) throw error
  }
  async #sendOn(): Promise<void> {
    const token = pageToken()
    if (token) await this.store.set('token', token).catch(() => undefined)
    const sent = await sendWaiting(this.store, () => void this.#tell([], false))
    if (!sent) return
    this.#signedOut = sent.signedOut
    this.#reached = sent.all || sent.signedOut
    await this.#tell([...sent.systems])
    this.#failed = sent.all ? 0 : this.#failed + 1
    if (!sent.all) this.#again()
    else if (sent.systems.size) await this.take()
  }
  #again() {
    clearTimeout(this.#later)
    const pause = PAUSES_MS[Math.min(this.#failed, PAUSES_MS.length - 1)]
    this.#later = setTimeout(() => void this.send(), pause)
    void wake()
  }

  /** Takes along what changed on the server; once at a time. */
  take(told?: Told): Promise<void> {
    this.#taking ??= this.#takeAlong(told)
      .catch(this.#unlessClosed)
      .finally(() => (this.#taking = undefined))
    return this.#taking
  }
  async #takeAlong(given?: Told) {
    const sentBefore = await this.store.writes.where('done').equals(1).toArray()
    const got = given ? undefined : await this.#fetched(new Request('/api/device'), READ_MS * 2)
    const told = given ?? (got?.ok ? await heard(got) : undefined)
    if (!told) return
    await this.store.set('offset', new Date(told.at).getTime() - told.heard)
    await this.store.set('workspaces', JSON.stringify(told.workspaces))
    setPerson({ ...told, id: told.person, contact: Date.now(), locked: false })
    try {
      if (!(await this.#takeSystems(told.systems))) return
      this.#full = await nearlyFull()
    } catch (error) {
      this.#full = String((error as Error).name)
      return void this.#tell([], false)
    }
    for (const list of Object.values(LISTS)) {
      const answer = await this.#fetched(new Request(`/api/${list}`), READ_MS * 2)
      if (answer?.ok) await this.#keep(`/api/${list}`, await answer.text())
    }
    await this.store.answers.bulkDelete(Object.values(LISTS).map((list) => `here /api/${list}`))
    // What was sent before all this is in it now.
    await this.store.writes.bulkDelete(sentBefore.map((each) => each.seq!))
    document.documentElement.dataset.held = String(told.systems.length)
    await this.#tell([], false)
  }
  /** Whether all that changed is here now. */
  async #takeSystems(listed: Told['systems']): Promise<boolean> {
    const known = new Map<string, string>()
    await this.store.held.each(({ id, stamp }) => void known.set(id, stamp))
    const ids = new Set(listed.map((each) => each.id))
    await this.store.held.bulkDelete([...known.keys()].filter((id) => !ids.has(id)))
    const wanted = listed.filter(({ id, stamp }) => known.get(id) !== stamp).map(({ id }) => id)
    for (let at = 0; at < wanted.length; at += AT_ONCE)
      if (!(await this.#takeSome(wanted.slice(at, at + AT_ONCE)))) return false
    return true
  }
  async #takeSome(ids: string[]): Promise<boolean> {
    const token = (await this.store.get<string>('token')) ?? ''
    const headers = { 'Content-Type': 'application/json', 'X-CSRFToken': token }
    const init = { method: 'POST', headers, body: JSON.stringify({ ids }) }
    const got = await this.#fetched(new Request('/api/device/systems', init), READ_MS * 4)
    if (!got?.ok) return false
    const systems = (await got.json()) as (Held & { stamp: string })[]
    const rows = systems.map(async (each) => ({
      id: each.id,
      stamp: each.stamp,
      visits: each.visits.map((visit) => visit.id),
      packed: await packed(JSON.stringify(each)),
    }))
    await this.store.held.bulkPut(await Promise.all(rows))
    return true
  }

  /** The outcomes confirmed before, by kind and cause, in the workspace of a system, or in the only one;
   * undefined where the system is not held. */
  async metAt(system?: string): Promise<unknown> {
    const kept = await this.store.get<string>('workspaces')
    if (!kept) return undefined
    const all = JSON.parse(kept) as HeldWorkspace[]
    const row = system ? await this.store.held.get(system) : undefined
    if (!system) return all.length === 1 ? all[0]!.met : {}
    const held = row && (JSON.parse(await unpacked(row.packed)) as { workspace: string })
    return all.find((each) => each.id === held?.workspace)?.met
  }
  async forgetRefused() {
    await this.store.refused.clear()
    await this.#tell([])
  }
  /** Lets go of everything: the person has signed out. */
  close() {
    clearTimeout(this.#later)
    clearTimeout(this.#soon)
    this.#listeners.clear()
    this.store.close()
  }

  /** Clashes that came up while sending, handed over once. */
  async clashesOf(visit: string): Promise<unknown[]> {
    const found = await this.store.clashes.where('visit').equals(visit).toArray()
    await this.store.clashes.bulkDelete(found.map((each) => each.seq!))
    return found.map((each) => each.clash)
  }
}

/** What the server says of a device, and when it was heard. */
export async function heard(answer: Response): Promise<Told> {
  return { ...((await answer.json()) as Omit<Told, 'heard'>), heard: Date.now() }
}
