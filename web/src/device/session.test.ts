import { Blob as Cloneable } from 'node:buffer'
import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { ask, deviceHere } from './ask'
import { wipe } from './begin'
import { leaving, person, setPerson } from './person'
import { Store } from './store'
import { kept } from './taken'

vi.mock('./core', () => ({
  beginCore: () => Promise.resolve({ whatIf: () => undefined, offline: () => '200\n{}' }),
}))

const DAY_MS = 86_400_000
const SESSION = 'http://127.0.0.1/api/session'
const signedIn = (told: boolean) => ({ signed_in: told, name: 'Ash', demo: false, needs: '' })
let reached: boolean
let asked: string[]
let says: () => Response
let dropped: string[]

function known(days: number, locked = false) {
  const contact = Date.now() - days * DAY_MS
  setPerson({ id: 7, name: 'Ash', contact, days: 30, locked })
}
async function whoIsIt() {
  const got = await ask(new Request(SESSION)).catch(() => undefined)
  return got && ((await got.json()) as ReturnType<typeof signedIn>)
}

beforeEach(async () => {
  localStorage.clear()
  ;[reached, asked, dropped] = [false, [], []]
  says = () => new Response(JSON.stringify(signedIn(true)))
  vi.stubGlobal('isSecureContext', true)
  vi.stubGlobal('Blob', Cloneable)
  const locks = { request: () => Promise.resolve(undefined) }
  vi.stubGlobal('navigator', { ...navigator, locks })
  vi.stubGlobal('caches', { delete: (name: string) => Promise.resolve(dropped.push(name)) })
  vi.stubGlobal('fetch', (to: Request | string, init?: RequestInit) => {
    asked.push(init?.method ?? (to as Request).method)
    return reached ? Promise.resolve(says()) : Promise.reject(new TypeError('no line'))
  })
  const store = new Store(7)
  await store.answers.put({ path: '/api/rounds', body: '{}' })
  store.close()
})
afterEach(async () => {
  await wipe()
  vi.unstubAllGlobals()
})
const databases = async () =>
  (await Dexie.getDatabaseNames()).filter((name) => name.startsWith('zerodip-'))

test('without a signal whoever was signed in stays so, for as long as the device may hold it', async () => {
  known(29)
  expect(await whoIsIt()).toEqual(signedIn(true))
  expect(deviceHere()).toBeDefined()
})

test('after too long without contact nothing is shown, and nothing is left here', async () => {
  known(31)
  expect(await whoIsIt()).toBeUndefined()
  expect(person()).toBeUndefined()
  expect(await databases()).toEqual([])
})

test('a session that had ended shows nothing without a signal, and loses nothing', async () => {
  known(1)
  ;[reached, says] = [true, () => new Response(JSON.stringify(signedIn(false)))]
  expect(await whoIsIt()).toEqual(signedIn(false))
  reached = false
  expect(await whoIsIt()).toBeUndefined()
  expect(await databases()).toEqual(['zerodip-7'])
  ;[reached, says] = [true, () => new Response(JSON.stringify(signedIn(true)))]
  await whoIsIt()
  reached = false
  expect(await whoIsIt()).toEqual(signedIn(true))
})

test('a server that is busy, or a line that tears, does not say who is signed in', async () => {
  known(1)
  ;[reached, says] = [true, () => new Response('busy', { status: 503 })]
  expect(await whoIsIt()).toEqual(signedIn(true))
  says = () => new Response(new ReadableStream({ pull: (to) => to.error(new TypeError('torn')) }))
  expect(await whoIsIt()).toEqual(signedIn(true))
})

test('signing out without a signal takes everything off, and the server hears of it first', async () => {
  known(1)
  for (const name of ['outbox.v', 'draft', 'stopwatch.v', 'unanswered.c'])
    localStorage.setItem(`zerodip.${name}`, '{}')
  localStorage.setItem('zerodip.theme', 'cellar')
  localStorage.setItem('another page', 'x')
  await expect(ask(new Request(SESSION, { method: 'DELETE' }))).rejects.toThrow()
  expect(Object.keys(localStorage).sort()).toEqual([
    ...['another page', 'zerodip.leaving', 'zerodip.theme'],
  ])
  expect(await databases()).toEqual([])
  expect(dropped).toEqual(['zerodip-photos'])
  expect(await whoIsIt()).toBeUndefined() // still without a signal: nobody
  ;[reached, asked] = [true, []]
  says = () => new Response(JSON.stringify(signedIn(false)))
  expect(await whoIsIt()).toEqual(signedIn(false))
  expect(asked).toEqual(['DELETE', 'GET'])
  expect(leaving()).toBe(false)
})

test('signing out takes everything off where nothing is held for times without a signal, too', async () => {
  vi.stubGlobal('isSecureContext', false) // over plain HTTP: nobody is known here
  localStorage.setItem('zerodip.outbox.v', '{}')
  await kept.put({ id: 'p', visit: 'v', plate: 'tank', data: new Blob(['x']) }, 'p')
  reached = true
  await ask(new Request(SESSION, { method: 'DELETE' }))
  expect(Object.keys(localStorage)).toEqual([])
  expect(await databases()).toEqual([])
  expect(asked).toEqual(['DELETE'])
})

test('photos that wait are taken off, too, though the page has looked at them', async () => {
  known(1)
  await kept.put({ id: 'p', visit: 'v', plate: 'tank', data: new Blob(['x']) }, 'p')
  expect(await kept.count()).toBe(1)
  await wipe()
  expect(await databases()).toEqual([])
  expect(await kept.count()).toBe(0)
})

/** A connection as any page may hold it, deaf to whoever wants the database to go. */
function heldOpen(): Promise<IDBDatabase> {
  const asking = indexedDB.open('zerodip-photos', 1)
  asking.onupgradeneeded = () => asking.result.createObjectStore('taken')
  return new Promise((done) => (asking.onsuccess = () => done(asking.result)))
}

test('nobody waits for a page that holds on to its photos; they go when it lets go', async () => {
  known(1)
  const elsewhere = await heldOpen()
  await wipe()
  expect(person()).toBeUndefined()
  elsewhere.close()
  await vi.waitFor(async () => expect(await databases()).toEqual([]))
})

test('photos that an earlier page kept are still sent', async () => {
  const before = await heldOpen()
  const photo = { id: 'p', visit: 'v', plate: 'tank', data: 'a picture' }
  const adding = before.transaction('taken', 'readwrite').objectStore('taken').put(photo, 'p')
  await new Promise((done) => (adding.onsuccess = done))
  before.close()
  expect(await kept.toArray()).toEqual([photo])
})

test('signing out with a signal leaves nothing to be told', async () => {
  known(1)
  reached = true
  await ask(new Request(SESSION, { method: 'DELETE' }))
  expect(leaving()).toBe(false)
  expect(person()).toBeUndefined()
})
