import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Stream } from '../../tests/stream'
import { LiveState } from './live.svelte'

const WATCH = { id: 'w', gauge: 'g', open: true, dial: {}, offered: [], hints: [] }
let asked: string[] = []

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'setTimeout', 'performance'] })
  Stream.all = []
  asked = []
  vi.stubGlobal('EventSource', Stream)
  vi.stubGlobal('fetch', (request: Request) => {
    const { pathname } = new URL(request.url)
    asked.push(pathname)
    const body = pathname.endsWith('/gauges')
      ? [
          { id: 'g', wire: {} },
          { id: 'h', wire: null },
        ]
      : pathname.endsWith('/watches')
        ? [WATCH]
        : pathname.endsWith('/line')
          ? { time_s: [1, 2], gauge_pa: [3, 4] }
          : WATCH
    return Promise.resolve(new Response(JSON.stringify(body), { headers: JSON_TYPE }))
  })
})
const JSON_TYPE = { 'Content-Type': 'application/json' }
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function watching() {
  const at = new LiveState('v')
  await at.load()
  return { at, stream: Stream.all[0]! }
}

describe('a gauge on the wire', () => {
  it('shows each sample, beginning with the line of before', async () => {
    const { at, stream } = await watching()
    expect(at.gauges.map((each) => each.id)).toEqual(['g'])
    stream.say({ t: 3, p: 5 })
    expect(at.now).toBe(5)
    expect(at.line).toEqual([
      [1, 3],
      [2, 4],
      [3, 5],
    ])
    stream.say({ t: 190, p: 6 })
    expect(at.line).toEqual([[190, 6]])
    at.stop()
  })

  it('is lost as the server says, or where nothing is heard, and comes back with a sample', async () => {
    const { at, stream } = await watching()
    stream.say({ lost: 'The device is silent.' })
    expect([at.lost, at.now]).toEqual(['The device is silent.', undefined])
    stream.say({ t: 3, p: 5 })
    expect([at.lost, at.now]).toEqual(['', 5])
    vi.advanceTimersByTime(2000)
    expect([at.lost, at.now]).toEqual(['The server does not answer.', undefined])
    stream.say({ t: 6, p: 5 })
    expect(at.now).toBe(5)
    at.stop()
  })

  it('is given longer for its first word than between two', async () => {
    const { at, stream } = await watching()
    vi.advanceTimersByTime(4500)
    expect(at.lost).toBe('')
    stream.say({ t: 3, p: 5 })
    vi.advanceTimersByTime(1500)
    expect(at.now).toBe(5)
    vi.advanceTimersByTime(750)
    expect(at.now).toBeUndefined()
    at.stop()
  })

  it('asks anew after an answer that was no stream', async () => {
    const { at, stream } = await watching()
    stream.close()
    stream.onerror?.()
    await vi.advanceTimersByTimeAsync(1100)
    expect(Stream.all.length).toBe(2)
    at.stop()
  })

  it('looks what is offered when something new was seen, and ends when it is told', async () => {
    const { at, stream } = await watching()
    stream.say({ seen: true })
    await vi.waitFor(() => expect(asked).toContain('/api/watches/w'))
    stream.say({ ended: true })
    expect(stream.readyState).toBe(Stream.CLOSED)
    at.stop()
  })
})
