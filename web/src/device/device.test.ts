import { Blob as Cloneable } from 'node:buffer'
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { chances } from '../tests/chances'
import { Device, type Standing } from './device'
import { setPerson } from './person'
import { Store } from './store'

const SYSTEM = '22222222-2222-4222-8222-222222222222'
const OTHER = '33333333-3333-4333-8333-333333333333'
const VISIT = '11111111-1111-4111-8111-111111111111'
const HOUR_MS = 3_600_000
const id = (at: number) => `44444444-4444-4444-8444-${String(at).padStart(12, '0')}`

/** What becomes of a request: it is answered, never arrives, arrives and the answer is lost, or is lost in the middle. */
const LINES = ['up', 'away', 'torn', 'half'] as const
type Line = (typeof LINES)[number]
let line: () => Line
let server: { entries: string[]; systems: { id: string; stamp: string }[]; fetched: string[][] }
let asked: string[]
let core: { method: string; path: string; now: string; writes: { path: string; at: string }[] }[]
let says: string
let store: Store
let device: Device
let people = 0

/** A server as far as a device knows one: entries by their ids, the systems, lists. */
function answer(path: string, body: string): unknown {
  if (path === '/api/device')
    return {
      ...{ person: store.person, name: 'Ash', at: new Date(Date.now() + HOUR_MS).toISOString() },
      ...{ days: 30, workspaces: [{ id: 'w', met: { none: 1 } }], systems: server.systems },
    }
  if (path === '/api/device/systems') {
    const { ids } = JSON.parse(body) as { ids: string[] }
    server.fetched.push(ids)
    const told = server.systems.filter((each) => ids.includes(each.id))
    return told.map((each) => ({ ...each, workspace: 'w', visits: [{ id: VISIT }] }))
  }
  if (path === '/api/device/writes') {
    const { writes } = JSON.parse(body) as { writes: { path: string }[] }
    writes.forEach((each) => record(each.path))
    return writes.map(() => ({ status: 200, body: {} }))
  }
  if (path.includes('/entries/')) record(path)
  return path.startsWith('/api/rounds') ? { sites: [], workspaces: [] } : []
}
function record(path: string) {
  const entry = path.split('/').at(-1)!
  if (!server.entries.includes(entry)) server.entries.push(entry)
}
async function fetched(to: Request | string, init?: RequestInit) {
  const { pathname } = new URL(typeof to === 'string' ? to : to.url, 'http://127.0.0.1/')
  const body = typeof to === 'string' ? String(init?.body) : await to.clone().text()
  asked.push(pathname)
  const now = line()
  if (now === 'away') throw new TypeError('no line')
  const made = JSON.stringify(answer(pathname, body))
  if (now === 'torn') throw new TypeError('the line tore')
  return now === 'half' ? new Response(torn(made)) : new Response(made)
}
function torn(text: string) {
  const start = new TextEncoder().encode(text.slice(0, text.length / 2))
  return new ReadableStream({
    start: (to) => to.enqueue(start),
    pull: (to) => to.error(new DOMException('signal timed out', 'TimeoutError')),
  })
}

beforeEach(async () => {
  line = () => 'up'
  says = '200\n{"here":true}'
  server = { entries: [], systems: [{ id: SYSTEM, stamp: '1' }], fetched: [] }
  asked = []
  core = []
  const locks = { request: (_: string, __: object, act: (lock: object) => unknown) => act({}) }
  vi.stubGlobal('navigator', { ...navigator, locks })
  vi.stubGlobal('Blob', Cloneable)
  vi.stubGlobal('fetch', fetched)
  store = new Store(++people)
  await store.open()
  const offline = (text: string) => {
    core.push(JSON.parse(text) as (typeof core)[0])
    return Promise.resolve(says)
  }
  device = new Device(store, Promise.resolve({ offline }))
  await device.take()
  asked = []
})
afterEach(() => {
  device.close()
  setPerson(undefined)
  vi.unstubAllGlobals()
})

const path = (at: number) => `/api/visits/${VISIT}/entries/${id(at)}`
function put(at: number) {
  const body = JSON.stringify({ slot: 'note', value: at })
  return device.ask(new Request(`http://127.0.0.1${path(at)}`, { method: 'PUT', body }))
}
const get = (at: string) => device.ask(new Request(`http://127.0.0.1${at}`))
const isHere = async (got: Response | undefined) => 'here' in ((await got!.json()) as object)

test('what is written with a signal goes straight through, and nothing waits', async () => {
  expect(await isHere(await put(1))).toBe(false)
  expect(server.entries).toEqual([id(1)])
  expect(await store.waiting()).toBe(0)
  expect(core).toEqual([])
  await get(`/api/visits/${VISIT}`)
  expect(asked).toEqual([path(1), `/api/visits/${VISIT}`])
})

test('without one the core answers from here, by the server’s clock, with all that waits', async () => {
  line = () => 'away'
  expect(await isHere(await put(1))).toBe(true)
  expect(await isHere(await put(2))).toBe(true)
  const last = core.filter((each) => each.method === 'PUT').at(-1)!
  expect(last.writes.map((each) => each.path)).toEqual([path(1), path(2)])
  const ahead = Date.parse(last.writes[1]!.at) - Date.now()
  expect(Math.abs(ahead - HOUR_MS)).toBeLessThan(60_000)
  expect(last.now >= last.writes[1]!.at).toBe(true)
  expect(await store.waiting()).toBe(2)
})

test('while something waits, what it concerns is answered from here, signal or not', async () => {
  line = () => 'away'
  await put(1)
  // A photo-like write holds the queue: nothing gets out, though questions would be answered.
  line = () => (asked.at(-1)!.endsWith('/writes') ? 'away' : 'up')
  expect(await isHere(await get(`/api/visits/${VISIT}`))).toBe(true)
  expect(await isHere(await get(`/api/systems/${OTHER}`))).toBe(false)
  expect(await isHere(await put(2))).toBe(true)
  expect(asked).not.toContain(path(2)) // it does not overtake the first
  line = () => 'up'
  await device.send()
  expect(server.entries).toEqual([id(1), id(2)])
})

test('what the core refuses is not kept, and what it does not know is asked of the server', async () => {
  line = () => 'away'
  says = '422\n{"title":"Cut-in is below 0"}'
  expect((await put(1))!.status).toBe(422)
  says = '404\n{}'
  expect((await put(2))!.status).toBe(404)
  expect(await store.writes.count()).toBe(0)
  line = () => 'up'
  says = '200\n{"here":true}'
  await put(3)
  expect(server.entries).toEqual([id(3)])
})

test.each([1, 2, 3, 4, 5, 6, 7, 8])(
  'whatever the line does, all arrives, once, in order (%i)',
  async (seed) => {
    const chance = chances(seed)
    line = () => LINES[Math.floor(chance() * LINES.length)]!
    const typed = Array.from({ length: 30 }, (_, at) => at)
    for (const at of typed) {
      expect((await put(at))!.ok).toBe(true)
      if (chance() < 0.3) await device.send()
    }
    line = () => 'up'
    await device.send()
    expect(server.entries).toEqual(typed.map(id))
    expect([await store.waiting(), await store.refused.count()]).toEqual([0, 0])
  },
)

test('a device that is opened again still has what waits, and sends it', async () => {
  line = () => 'away'
  await put(1)
  device.close()
  store = new Store(people)
  await store.open()
  device = new Device(store, Promise.resolve({ offline: () => Promise.resolve(says) }))
  expect(await store.waiting()).toBe(1)
  line = () => 'up'
  await device.send()
  expect(server.entries).toEqual([id(1)])
})

test('an answer that is lost in the middle is none: the device answers', async () => {
  line = () => 'half'
  expect(await isHere(await get(`/api/visits/${VISIT}`))).toBe(true)
  await expect(device.take()).resolves.toBeUndefined()
  await device.send()
  line = () => 'up'
  expect(await isHere(await get(`/api/visits/${VISIT}`))).toBe(false)
})

test('only what changed is taken along, and what is gone is let go', async () => {
  expect(server.fetched).toEqual([[SYSTEM]])
  await device.take()
  expect(server.fetched).toHaveLength(1)
  server.systems = [
    { id: SYSTEM, stamp: '2' },
    { id: OTHER, stamp: '1' },
  ]
  await device.take()
  expect(server.fetched[1]).toEqual([SYSTEM, OTHER])
  server.systems = [{ id: OTHER, stamp: '1' }]
  await device.take()
  expect(await store.held.toCollection().primaryKeys()).toEqual([OTHER])
})

test('what was sent is answered from here until it was fetched with its system', async () => {
  await put(1)
  line = () => 'away'
  await get(`/api/visits/${VISIT}`)
  expect(core[0]!.writes.map((each) => each.path)).toEqual([path(1)])
  line = () => 'up'
  await device.take()
  line = () => 'away'
  await get(`/api/visits/${VISIT}`)
  expect(core[1]!.writes).toEqual([])
})

test('a visit opened twice is asked for by the id that arrived first', async () => {
  await store.set(`visit ${VISIT}`, OTHER)
  await put(1)
  expect(asked).toEqual([path(1).replace(VISIT, OTHER)])
})

test('a full device says so instead of losing what was typed', async () => {
  const stands: Standing[] = []
  device.onchange((standing) => stands.push(standing))
  line = () => 'away'
  vi.spyOn(store.writes, 'add').mockRejectedValue(new DOMException('full', 'QuotaExceededError'))
  await expect(put(1)).rejects.toThrow('nothing more can be kept')
  await vi.waitFor(() => expect(stands.at(-1)!.full).toBe('QuotaExceededError'))
})

test('whoever signs out while something is under way meets no error', async () => {
  line = () => 'away'
  await put(1)
  const sending = device.send()
  device.close()
  await expect(sending).resolves.toBeUndefined()
  await expect(device.take()).resolves.toBeUndefined()
})

test('the outcomes confirmed before are those of the workspace', async () => {
  expect(await device.metAt(SYSTEM)).toEqual({ none: 1 })
  expect(await device.metAt()).toEqual({ none: 1 })
  expect(await device.metAt(OTHER)).toBeUndefined()
})
