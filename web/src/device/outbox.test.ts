import { Blob as Cloneable } from 'node:buffer'
import 'fake-indexeddb/auto'
import { beforeEach, expect, test, vi } from 'vitest'
import { sendWaiting } from './outbox'
import { Store, type Write } from './store'

const VISIT = '11111111-1111-4111-8111-111111111111'
const SYSTEM = '22222222-2222-4222-8222-222222222222'
let store: Store
let asked: { url: string; init: RequestInit }[]
let people = 0

beforeEach(() => {
  store = new Store(++people)
  asked = []
  const locks = { request: (_: string, __: object, act: (lock: object) => unknown) => act({}) }
  vi.stubGlobal('navigator', { ...navigator, locks })
})

function write(path: string, body: unknown = {}): Write {
  const at = '2026-01-01T10:00:00.000Z'
  const about = { id: path, system: SYSTEM, method: 'PUT', path, query: '', body }
  return { ...about, at, done: 0 }
}
const entry = (id: number, slot = 'note') =>
  write(`/api/visits/${VISIT}/entries/${id}`, { slot, value: id })

type Given = number | [number, unknown] | 'away'
/** What comes of each write, one after the other, whichever request it goes in. */
function answers(...given: Given[]) {
  const one = () => {
    const next = given.shift() ?? 200
    return next === 'away' || typeof next === 'number' ? next : { status: next[0], body: next[1] }
  }
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    asked.push({ url, init })
    const told = url.endsWith('/writes') ? (JSON.parse(init.body as string) as Told) : undefined
    const all = (told?.writes ?? [{}]).map(one)
    if (all[0] === 'away') return Promise.reject(new TypeError())
    const rows = all.map((each) => (typeof each === 'number' ? { status: each, body: {} } : each))
    if (!told) {
      const { status, body } = rows[0] as { status: number; body: unknown }
      return Promise.resolve(new Response(JSON.stringify(body), { status }))
    }
    return Promise.resolve(new Response(JSON.stringify(rows)))
  })
}
interface Told {
  sent: string
  writes: { path: string; made: string }[]
}
const told = (at = 0) => JSON.parse(asked[at]!.init.body as string) as Told
const paths = (at = 0) => told(at).writes.map((each) => each.path.slice(-1))

test('sends all at once, in order, and stops where there is no connection', async () => {
  await store.writes.bulkAdd([entry(1), entry(2), entry(3)])
  answers('away')
  expect(await sendWaiting(store)).toMatchObject({ all: false, signedOut: false })
  expect(await store.waiting()).toBe(3)
  asked = []
  answers(200, 503, 503)
  expect(await sendWaiting(store)).toMatchObject({ all: false, signedOut: false })
  expect(paths()).toEqual(['1', '2', '3'])
  expect(await store.waiting()).toBe(2)
  asked = []
  answers()
  expect(await sendWaiting(store)).toMatchObject({ all: true, systems: new Set([SYSTEM]) })
  expect(paths()).toEqual(['2', '3'])
  expect(await store.waiting()).toBe(0)
})

test('photos go after what is told, side by side, and before the visit is closed', async () => {
  const photo = {
    ...write(`/api/visits/${VISIT}/photos/5`),
    photo: new Blob(['x']),
    query: '?plate=tank',
  }
  await store.writes.bulkAdd([photo, entry(1), write(`/api/visits/${VISIT}/closed`), entry(2)])
  answers()
  expect(await sendWaiting(store)).toMatchObject({ all: true })
  expect(await store.refused.count()).toBe(0)
  expect(asked.map(({ url }) => url.split('/').at(-1))).toEqual([
    ...['writes', '5?plate=tank', 'writes', 'writes'],
  ])
  expect([paths(0), paths(2), paths(3)]).toEqual([['1'], ['d'], ['2']])
})

test('many photos go small first, then the visit is closed, then they go as they were taken', async () => {
  vi.stubGlobal('Blob', Cloneable)
  vi.stubGlobal('createImageBitmap', () =>
    Promise.resolve({ width: 1280, height: 960, close: () => undefined }),
  )
  class Canvas {
    getContext = () => ({ drawImage: () => undefined })
    convertToBlob = () => Promise.resolve(new Blob(['small']))
  }
  vi.stubGlobal('OffscreenCanvas', Canvas)
  const photo = (id: number) => ({
    ...write(`/api/visits/${VISIT}/photos/${id}`),
    photo: new Blob(['x'.repeat(100_000)]),
    query: '?plate=tank',
  })
  await store.writes.bulkAdd([photo(1), photo(2), write(`/api/visits/${VISIT}/closed`)])
  answers(200, 'away')
  expect(await sendWaiting(store)).toMatchObject({ all: false })
  expect([await store.waiting(), await store.following()]).toEqual([3, 1])
  answers(200, 200, 'away')
  await sendWaiting(store)
  expect([await store.waiting(), await store.following()]).toEqual([1, 1])
  answers()
  expect(await sendWaiting(store)).toMatchObject({ all: true })
  const sizes = asked.slice(0, 3).map(({ init }) => (init.body as Blob).size)
  expect(sizes).toEqual([5, 5, 100_000])
  expect(asked.map(({ url }) => url.endsWith('&draft=true'))).toEqual([
    ...[true, true, false, false, false, false],
  ])
})

test('a server that is away for all of it is asked again later', async () => {
  await store.writes.add(entry(1))
  vi.stubGlobal('fetch', () => Promise.resolve(new Response('{}', { status: 503 })))
  expect(await sendWaiting(store)).toMatchObject({ all: false, signedOut: false })
  expect(await store.waiting()).toBe(1)
})

test('a write on which the server breaks every time does not hold up the others', async () => {
  await store.writes.bulkAdd([entry(1), entry(2)])
  for (let at = 0; at < 5; at++) {
    answers(500)
    await sendWaiting(store)
  }
  expect(await store.waiting()).toBe(0)
  expect((await store.refused.toArray()).map((each) => each.id.slice(-1))).toEqual(['1'])
})

test('what no server reads is found, refused, and the rest goes on', async () => {
  await store.writes.bulkAdd([entry(1), entry(2)])
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    const { writes } = JSON.parse(init.body as string) as Told
    const bad = writes.some((each) => each.path.endsWith('1'))
    const rows = JSON.stringify([{ status: 200, body: {} }])
    return Promise.resolve(new Response(bad ? '{}' : rows, { status: bad ? 422 : 200 }))
  })
  expect(await sendWaiting(store)).toMatchObject({ all: true })
  expect((await store.refused.toArray()).map((each) => each.id.slice(-1))).toEqual(['1'])
})

test('a session that has ended stops it, and nothing is dropped', async () => {
  await store.writes.add(entry(1))
  for (const [status, body] of [
    [401, {}],
    [403, { title: 'Reload the page and try again' }],
  ] as const) {
    const made = () => new Response(JSON.stringify(body), { status })
    vi.stubGlobal('fetch', () => Promise.resolve(made()))
    expect(await sendWaiting(store)).toMatchObject({ all: false, signedOut: true })
  }
  expect(await store.waiting()).toBe(1)
})

test('what is refused for good stays readable, and the rest goes on', async () => {
  await store.writes.bulkAdd([entry(1), entry(2)])
  answers([403, { title: 'Your role does not allow this', detail: 'Ask an owner.', faults: [] }])
  expect(await sendWaiting(store)).toMatchObject({ all: true })
  const [refused] = await store.refused.toArray()
  expect(refused).toMatchObject({
    title: 'Your role does not allow this',
    detail: 'Ask an owner.',
    body: { slot: 'note', value: 1 },
  })
  expect(asked).toHaveLength(1)
})

test('a clash is kept with both values', async () => {
  await store.writes.add(entry(1, 'found.cut_in'))
  answers([409, { title: 'x', faults: [], current: { entry: 'theirs', value: 7, by: 'Birch' } }])
  await sendWaiting(store)
  const [kept] = await store.clashes.where('visit').equals(VISIT).toArray()
  expect(kept?.clash).toEqual({
    ...{ slot: 'found.cut_in', entry: 'theirs', value: 7, yours: 1, by: 'Birch' },
  })
  expect(await store.refused.count()).toBe(0)
})

test('a visit opened twice becomes the one that arrived first', async () => {
  const theirs = '33333333-3333-4333-8333-333333333333'
  const photo = { ...write(`/api/visits/${VISIT}/photos/5`), photo: new Blob(['x']) }
  await store.writes.bulkAdd([write(`/api/systems/${SYSTEM}/visits/${VISIT}`), photo])
  answers([200, { id: theirs }])
  await sendWaiting(store)
  expect(asked[1]!.url).toBe(`/api/visits/${theirs}/photos/5`)
  expect(await store.get(`visit ${VISIT}`)).toBe(theirs)
})

test('figures that the server works out otherwise are told', async () => {
  const shown = { verdict: 'pass', figures: { drawdown: 0.05, run: 60 } }
  const path = `/api/systems/${SYSTEM}/decisions/44444444-4444-4444-8444-444444444444`
  await store.writes.add({ ...write(path), shown })
  answers([200, { verdict: 'pass', figures: { drawdown: 0.05 + 1e-16, run: 61 } }])
  await sendWaiting(store)
  const [told] = await store.refused.toArray()
  expect(told?.detail).toMatch(/^run\. /)
})

test('says when it was made and by whom', async () => {
  await store.writes.add(entry(1))
  answers()
  await sendWaiting(store)
  const headers = asked[0]!.init.headers as Record<string, string>
  expect(told().writes[0]!.made).toBe('2026-01-01T10:00:00.000Z')
  expect(headers['Zerodip-Person']).toBe(String(people))
  expect(Date.parse(told().sent)).toBeGreaterThan(0)
})
