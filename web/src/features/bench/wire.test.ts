import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { json } from '../../tests/json'
import { Stream } from '../../tests/stream'
import { WireState, type Change } from './wire.svelte'

let asked = 0
let answer: () => Response

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'setTimeout', 'performance'] })
  Stream.all = []
  asked = 0
  answer = () => json({ gauge_name: 'Bench 1', until_s: 1 })
  vi.stubGlobal('EventSource', Stream)
  vi.stubGlobal('fetch', () => {
    asked++
    return Promise.resolve(answer())
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function watching() {
  const changes: Change[] = []
  const at = new WireState('c', (change) => changes.push(change))
  await at.begin()
  return { at, changes, stream: Stream.all[0]! }
}
const CHANGE = { id: 'x', at_s: 1, gauge_pa: 7e5, rate_pa_s: 900, delay_s: 0.1, closed: true }

it('shows pressure, rate and contact as they come, and hands on each change', async () => {
  const { at, changes, stream } = await watching()
  expect(stream.url).toBe('/api/calibrations/c/stream')
  expect([at.now, at.name]).toEqual([undefined, 'Bench 1'])
  stream.say({ t: 1, p: 650e3, r: 900, c: false })
  expect([at.now, at.rate, at.closed]).toEqual([650e3, 900, false])
  stream.say({ change: CHANGE })
  expect(changes).toEqual([CHANGE])
  expect(at.now).toBe(650e3)
})

it('shows nothing while the gauge is lost, or the server silent', async () => {
  const { at, stream } = await watching()
  stream.say({ p: 650e3, r: 0 })
  stream.say({ lost: 'Nothing answers.' })
  expect([at.now, at.lost]).toEqual([undefined, 'Nothing answers.'])
  stream.say({ p: 651e3, r: 0 })
  expect([at.now, at.lost]).toEqual([651e3, ''])
  vi.advanceTimersByTime(4000)
  expect([at.now, at.lost]).toEqual([undefined, 'The server does not answer.'])
})

it('is asked for anew in time, and where the stream was refused; not after it was left', async () => {
  const { at, stream } = await watching()
  await vi.advanceTimersByTimeAsync(240_000)
  expect(asked).toBe(2)
  stream.readyState = Stream.CLOSED
  stream.onerror!()
  await vi.advanceTimersByTimeAsync(1000)
  expect([asked, Stream.all.length]).toEqual([3, 2])
  at.stop()
  Stream.all[1]!.onerror!()
  await vi.advanceTimersByTimeAsync(600_000)
  expect([asked, Stream.all.length]).toEqual([3, 2])
})

it('says why where the reference cannot be read', async () => {
  answer = () => json({ title: 'Refused', detail: '', status: 422, faults: [] }, 422)
  const { at } = await watching()
  expect(at.problem?.title).toBe('Refused')
  expect(Stream.all).toEqual([])
})
