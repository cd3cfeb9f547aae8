import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { preferences } from './preferences.svelte'
import { VisitState } from './visit.svelte'

let calls: string[]
let open: boolean
let signal: boolean
let units: string
/** Holds back the answer to a question, which is as things stood when it was asked. */
let late: Promise<void> | undefined

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
  preferences.setUnits('us')
  ;[calls, open, signal, units] = [[], true, true, 'us']
  late = undefined
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname, searchParams } = new URL(request.url)
    const what = pathname.split('/').slice(3)[1] ?? 'visit'
    calls.push(`${request.method} ${what} ${searchParams.get('units')}`)
    if (!signal && request.method === 'PUT') throw new TypeError('no signal')
    if (what === 'closed') open = false
    const body = {
      id: 'v',
      open,
      may_change: true,
      system: { id: 's', site: { units } },
      view: {
        place: 'hand_over',
        power: 'on',
        make_safe: [],
        power_up: { id: 'power_up', done: false },
        read: [],
      },
      entries: [],
      photos: [],
    }
    if (request.method === 'GET') await late
    return new Response(JSON.stringify(body), {
      status: 200,
      headers: { 'Content-Type': 'application/json' },
    })
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function opened() {
  const at = new VisitState('v')
  await at.load()
  return at
}

describe('closing a visit', () => {
  it('sends what waits first', async () => {
    const at = await opened()
    void at.put('found.gauge', 3e5, false)
    await at.close()
    expect(calls.slice(1)).toEqual(['PUT entries us', 'PUT closed us'])
    expect(at.open).toBe(false)
  })
  it('stands, whatever a question asked before it says later', async () => {
    const at = await opened()
    let answer = () => {}
    late = new Promise((done) => (answer = done))
    const poll = at.load()
    await at.close()
    answer()
    await poll
    expect(at.open).toBe(false)
  })
  it('is not done while something waits without signal, and nothing is lost', async () => {
    const at = await opened()
    signal = false
    void at.put('found.gauge', 3e5, false)
    await at.close()
    expect(calls.some((call) => call.includes('closed'))).toBe(false)
    expect(at.waiting).toHaveLength(1)
    signal = true
    await at.close()
    expect(calls.slice(-2)).toEqual(['PUT entries us', 'PUT closed us'])
    expect(at.waiting).toHaveLength(0)
  })
})

describe('a visit of a site with other units', () => {
  it('is asked for again, so that all it says is in them', async () => {
    units = 'metric'
    const at = await opened()
    expect(calls).toEqual(['GET visit us', 'GET visit metric'])
    expect(preferences.units).toBe('metric')
    expect(at.step).toBe('hand_over')
  })
})
