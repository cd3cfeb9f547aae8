import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { json } from '../../tests/json'
import { session } from '../../api/session.svelte'
import { Sending } from './sending.svelte'

const OF = '0b7d1f1e-0000-4000-8000-000000000001'
interface Asked {
  id: string
  body: unknown
  made: string | null
}
let asked: Asked[] = []
let answer: () => Response
const noSignal = () => {
  throw new TypeError('no signal')
}
const READ = { kind: 'read', point: 'lower', which: 'set', gauge_pa: 3e5 }
let got: unknown[] = []
const made = () =>
  new Sending(
    OF,
    () => 'us',
    (one) => got.push(one),
  )
/** A page that was closed before its reading got an answer. */
async function leftBehind() {
  answer = noSignal
  const first = made()
  void first.add(READ)
  await settled()
  first.stop()
  answer = () => json({ id: OF })
}
const settled = () => vi.advanceTimersByTimeAsync(700)

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  localStorage.clear()
  session.current = { signed_in: true, name: 'M. Linden', demo: false, needs: '' }
  ;[asked, got] = [[], []]
  answer = () => json({ id: OF })
  vi.stubGlobal('fetch', async (request: Request) => {
    const id = new URL(request.url).pathname.split('/').at(-1)!
    asked.push({ id, body: await request.json(), made: request.headers.get('Zerodip-Made') })
    return answer()
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('sends a reading once and lets the next follow', async () => {
  const sending = made()
  void sending.add(READ)
  void sending.add(READ) // a second tap
  await settled()
  expect(asked).toHaveLength(1)
  expect(got).toHaveLength(1)
  expect(sending.busy).toBe(false)
  await sending.add({ kind: 'voided' }, asked[0]!.id)
  expect(asked[1]!.body).toEqual({ value: { kind: 'voided' }, supersedes: asked[0]!.id })
})

it('sends again under the same id where the answer was lost, and makes no second reading meanwhile', async () => {
  answer = noSignal
  const sending = made()
  void sending.add(READ)
  await settled()
  expect(sending.waiting).toBeDefined()
  void sending.add({ ...READ, gauge_pa: 1e5 })
  answer = () => json({ title: 'Busy', faults: [] }, 503)
  await vi.advanceTimersByTimeAsync(3000)
  answer = () => json({ id: OF })
  await vi.advanceTimersByTimeAsync(3000)
  expect(new Set(asked.map(({ id, body, made }) => JSON.stringify([id, body, made]))).size).toBe(1)
  expect(asked).toHaveLength(3)
  expect(sending.waiting).toBeUndefined()
  expect(sending.problem).toBeUndefined()
  expect(localStorage).toHaveLength(0)
})

it.each([
  [401, 'Sign in first'],
  [403, 'Reload the page and try again'],
])('keeps what was entered when the session has ended (%i)', async (status, title) => {
  answer = () => json({ title, status, detail: '', faults: [] }, status)
  const sending = made()
  void sending.add(READ)
  await settled()
  expect(asked).toHaveLength(1)
  expect(sending.problem?.title).toBe(title)
  answer = () => json({ id: OF })
  session.current = { signed_in: true, name: 'B. Aldermoor', demo: false, needs: '' }
  await vi.advanceTimersByTimeAsync(9000)
  expect(asked).toHaveLength(1) // nobody sends it for them
  session.current = { signed_in: true, name: 'M. Linden', demo: false, needs: '' }
  await vi.advanceTimersByTimeAsync(3000)
  expect([asked.length, got.length, sending.waiting]).toEqual([2, 1, undefined])
  sending.stop()
})

it('goes on with what a closed page left behind', async () => {
  await leftBehind()
  await made().begin()
  expect(asked[1]).toEqual(asked[0])
  expect(got).toHaveLength(1)
})

it('leaves what another person left behind to them', async () => {
  await leftBehind()
  const mine = session.current
  session.current = { signed_in: true, name: 'B. Aldermoor', demo: false, needs: '' }
  const other = made()
  await other.begin()
  await other.add(READ)
  expect(asked).toHaveLength(2)
  expect(asked[1]!.id).not.toBe(asked[0]!.id)
  session.current = mine
  await made().begin()
  expect(asked[2]).toEqual(asked[0])
})

it('keeps nothing back that the server refused', async () => {
  answer = () => json({ title: 'Refused', status: 422, faults: [{ message: 'Read is off.' }] }, 422)
  const sending = made()
  void sending.add(READ)
  await settled()
  expect(sending.faults).toHaveLength(1)
  expect(sending.waiting).toBeUndefined()
  expect(localStorage).toHaveLength(0)
})
