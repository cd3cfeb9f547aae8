import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { version } from '../../packed/version.json'

/** A service worker as far as a page sees one. */
class Worker extends EventTarget {
  told: unknown[] = []
  constructor(public state = 'installing') {
    super()
  }
  postMessage(said: unknown) {
    this.told.push(said)
  }
  become(state: string) {
    this.state = state
    this.dispatchEvent(new Event('statechange'))
  }
}
class Registration extends EventTarget {
  waiting: Worker | null = null
  installing: Worker | null = null
  looked = 0
  update() {
    this.looked++
    return Promise.resolve(this)
  }
}
let kept: Registration
let container: EventTarget & { controller: Worker | null }
let reloads: number

/** The page anew: what it knows of versions lies in modules. */
async function page() {
  vi.resetModules()
  return { ...(await import('./updates')), ...(await import('./versions')) }
}
const answerOf = (theirs: string) =>
  new Response('', { headers: { 'Zerodip-Version': theirs } }) as Response
const soon = () => new Promise<void>((done) => queueMicrotask(() => queueMicrotask(done)))

beforeEach(() => {
  kept = new Registration()
  container = Object.assign(new EventTarget(), {
    controller: new Worker('activated'),
    register: () => Promise.resolve(kept),
    getRegistration: () => Promise.resolve(kept),
  })
  vi.stubGlobal('navigator', { ...navigator, serviceWorker: container })
  reloads = 0
  vi.spyOn(location, 'reload').mockImplementation(() => void reloads++)
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

test('a page that is the newest says nothing', async () => {
  const { keepPage, onUpdate, compare, belongTogether } = await page()
  const heard = vi.fn()
  onUpdate(heard)
  await keepPage()
  compare(answerOf(version))
  compare(new Response('')) // not every answer tells
  expect(heard).not.toHaveBeenCalled()
  expect([belongTogether(), reloads]).toEqual([true, 0])
})

test('the first visit installs what keeps the page, and that is no new version', async () => {
  container.controller = null
  kept.waiting = new Worker('installed')
  const { keepPage, onUpdate } = await page()
  const heard = vi.fn()
  onUpdate(heard)
  await keepPage()
  expect(heard).not.toHaveBeenCalled()
})

test('one that is being installed is told of once it is there, and waits until somebody says so', async () => {
  const { keepPage, onUpdate, takeUpdate } = await page()
  const heard = vi.fn()
  onUpdate(heard)
  await keepPage()
  const next = (kept.installing = new Worker())
  kept.dispatchEvent(new Event('updatefound'))
  await soon()
  expect(heard).not.toHaveBeenCalled()
  kept.installing = null
  kept.waiting = next
  next.become('installed')
  await vi.waitFor(() => expect(heard).toHaveBeenCalledOnce())
  expect([next.told, reloads]).toEqual([[], 0]) // whoever is in the middle of a visit says when
  await takeUpdate()
  expect(next.told).toEqual(['take over'])
  expect(reloads).toBe(0)
  container.dispatchEvent(new Event('controllerchange'))
  expect(reloads).toBe(1)
})

test('whoever listens later hears of what waits already', async () => {
  kept.waiting = new Worker('installed')
  const { keepPage, onUpdate } = await page()
  await keepPage()
  const heard = vi.fn()
  onUpdate(heard)
  expect(heard).toHaveBeenCalledOnce()
})

test('a server of another version is told of, looked for, and the page no longer answers by itself', async () => {
  const { onUpdate, compare, belongTogether, takeUpdate } = await page()
  const heard = vi.fn()
  onUpdate(heard)
  compare(answerOf('another'))
  compare(answerOf('another'))
  expect(heard).toHaveBeenCalledOnce()
  expect(belongTogether()).toBe(false)
  await vi.waitFor(() => expect(kept.looked).toBe(1))
  await takeUpdate()
  expect(reloads).toBe(1) // nothing waits here: the server has the other page
  compare(answerOf(version)) // the server was set back
  expect(belongTogether()).toBe(true)
})

test('a browser without service workers only loads anew', async () => {
  vi.stubGlobal('navigator', { ...navigator, serviceWorker: undefined })
  const { keepPage, takeUpdate } = await page()
  await keepPage()
  await takeUpdate()
  expect(reloads).toBe(1)
})
