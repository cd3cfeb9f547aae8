import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { json } from '../../tests/json'
import { RecordingState } from './recording.svelte'

const ID = '0b7d1f1e-0000-4000-8000-000000000002'
const DAY_S = 86_400
let recording: Record<string, unknown>
let asked: URL[]
let answers: (url: URL) => Promise<Response> | Response
const of = (end: string) => asked.filter(({ pathname }) => pathname.endsWith(end))
const number = (url: URL, name: string) => Number(url.searchParams.get(name))

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  asked = []
  recording = { state: 'read', first_s: 1000, last_s: 1000 + 7 * DAY_S, told: null }
  answers = () => json({})
  vi.stubGlobal('fetch', (request: Request) => {
    const url = new URL(request.url)
    asked.push(url)
    return url.pathname.endsWith(ID) ? json(recording) : answers(url)
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
async function loaded() {
  const at = new RecordingState(ID)
  await at.load()
  return at
}
const settled = () => vi.advanceTimersByTimeAsync(100)

describe('how far a recording is', () => {
  it('is asked again while it is read, and no more once the page is left', async () => {
    recording.state = 'reading'
    const at = await loaded()
    await vi.advanceTimersByTimeAsync(1500)
    expect(of(ID)).toHaveLength(3)
    void at.load() // on its way when the page is left
    at.stop()
    await vi.advanceTimersByTimeAsync(5000)
    expect(of(ID)).toHaveLength(4)
  })

  it('is asked again after a question that found no signal', async () => {
    recording.state = 'reading'
    const at = await loaded()
    const reached = globalThis.fetch
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no signal')))
    await vi.advanceTimersByTimeAsync(2000)
    expect(at.problem?.status).toBe(0)
    vi.stubGlobal('fetch', reached)
    recording.state = 'read'
    await vi.advanceTimersByTimeAsync(1000)
    expect([at.problem, at.recording?.state]).toEqual([undefined, 'read'])
  })

  it('begins at the busiest hour of a long one, and with all of a short one', async () => {
    recording.told = { busiest_hour: [50_000, 9] }
    expect((await loaded()).window).toEqual([49_700, 53_600])
    recording = { ...recording, last_s: 4000 }
    expect((await loaded()).window).toEqual([1000, 4000])
  })

  it('says beside the field what a layout cannot be', async () => {
    const at = await loaded()
    const faults = [{ path: 'layout.zone', code: 'zone', message: 'No such zone.', allowed: '' }]
    answers = () => json({ title: 'Not read', status: 422, detail: '', faults }, 422)
    await at.read({ columns: [] })
    expect([at.faults, at.problem]).toEqual([faults, undefined])
  })
})

describe('the window of its line', () => {
  it('stays within the recording and is never narrower than five seconds', async () => {
    const at = await loaded()
    const [first, last] = at.ends
    const zooms: [number, number][] = [
      [0.001, 0.3],
      [0.001, 0.9],
      [900, 0.5],
      [1e9, 0],
    ]
    for (const [by, place] of zooms) {
      at.zoom(by, place)
      for (const move of [-3, 0.4, 1e6]) {
        at.move(move)
        const [from, until] = at.window
        expect(from).toBeGreaterThanOrEqual(first)
        expect(until).toBeLessThanOrEqual(last + 1e-6)
        expect(until - from).toBeGreaterThanOrEqual(5 - 1e-6)
      }
    }
    expect(at.window).toEqual([first, last])
  })

  it('keeps what lies under the pointer there while it zooms', async () => {
    const at = await loaded()
    at.look(100_000, 200_000)
    at.zoom(0.5, 0.25)
    expect(at.window).toEqual([112_500, 162_500])
    at.zoom(2, 0.25)
    expect(at.window).toEqual([100_000, 200_000])
  })

  it('is asked for once it has settled, with room to both sides and as fine as it is shown', async () => {
    const at = await loaded()
    await settled()
    at.setWidth(390.4)
    for (const from of [10_000, 20_000, 30_000]) at.look(from, from + 1000)
    await settled()
    const [line, cycles] = [of('/line').slice(1), of('/cycles').slice(1)]
    expect(line).toHaveLength(1)
    expect(['from_s', 'until_s', 'points'].map((name) => number(line[0]!, name))).toEqual([
      ...[29_500, 31_500, 780],
    ])
    expect([number(cycles[0]!, 'from_s'), number(cycles[0]!, 'until_s')]).toEqual([30_000, 31_000])
  })
})

it('what is expected of a cycle is shown with that cycle only', async () => {
  const at = await loaded()
  let late: (answer: Response) => void = () => undefined
  answers = (url) =>
    number(url, 'start_s') === 1
      ? new Promise<Response>((done) => (late = done))
      : json({ time_s: [2], gauge_pa: [2] })
  const first = at.choose({ start_s: 1 })
  await at.choose({ start_s: 2 })
  late(json({ time_s: [1], gauge_pa: [1] }))
  await first
  expect(at.predicted?.time_s).toEqual([2])
  await at.choose(undefined)
  expect(at.predicted).toBeUndefined()
})
