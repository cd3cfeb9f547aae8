import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standing } from './confirmations'
import { readOutbox } from './outbox'
import { turnWords, way } from './turns'
import { VisitState } from './visit.svelte'
import { inWords } from './words'
import { unitFor } from './units'
import type { Schemas } from '../api/client'

const psi = unitFor('pressure', 'us').factor
type Sent = { id: string; slot: string; value: unknown; supersedes: string | null }

const steps = [
  { id: 'bystanders', after: '', while_off: false, done: false },
  { id: 'power_off', after: '', while_off: true, done: false },
  { id: 'proved_dead', after: 'power_off', while_off: true, done: false },
]
const view = {
  place: 'read',
  power: 'unknown',
  make_safe: steps,
  power_up: { id: 'power_up', done: false },
  read: [],
}

let entries: Sent[]
let sent: Sent[]
/** Holds back an answer to a question, and what it said when it was asked. */
let holdGet: Promise<void> | undefined
let held: unknown
let answer: (entry: Sent) => { status: number; body?: unknown } | undefined

const body = () => ({
  id: 'v',
  open: true,
  may_change: true,
  system: { id: 's', site: { units: 'us' } },
  view: { ...view },
  entries,
  photos: [],
})

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
  ;[entries, sent] = [[], []]
  answer = () => undefined
  holdGet = held = undefined
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET') {
      await holdGet
      return reply(200, held ?? body())
    }
    const id = request.url.replace(/.*entries\/([^?]*).*/, '$1')
    const entry = { id, ...(JSON.parse(await request.text()) as Omit<Sent, 'id'>) }
    sent.push(entry)
    const refused = answer(entry)
    if (refused?.status === 0) throw new TypeError('no signal')
    if (refused) return reply(refused.status, refused.body)
    entries = [...entries, entry]
    const more = new URL(request.url).searchParams.get('more') === 'true'
    return more ? new Response(null, { status: 204 }) : reply(200, body())
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const reply = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })

async function opened() {
  const at = new VisitState('v')
  await at.load()
  return at
}

describe('a visit', () => {
  it('opens where it stood', async () => {
    expect((await opened()).step).toBe('read')
  })

  it('sends many presses as one reading, kept on the device meanwhile', async () => {
    const at = await opened()
    for (const pressure of [38, 39, 40]) void at.put('found.gauge', pressure * psi, false)
    expect(at.value('found.gauge')).toBe(40 * psi)
    expect(readOutbox('v')).toHaveLength(1)
    await vi.runAllTimersAsync()
    expect(sent.map((each) => each.value)).toEqual([40 * psi])
    expect(readOutbox('v')).toEqual([])
  })

  it('asks for the view with the last of many readings only, and shows all of them meanwhile', async () => {
    const at = await opened()
    const before = at.visit!.view
    const slots = ['found.corrosion', 'found.leaks', 'found.nipple'] as const
    const last = new Promise<void>(
      (go) => (answer = ({ slot }) => void (slot === slots[2] && go())),
    )
    for (const slot of slots) void at.put(slot, false, false)
    const sending = at.flush()
    await last
    expect(slots.map((slot) => at.value(slot))).toEqual([false, false, false])
    expect(at.visit!.view).toBe(before)
    await sending
    expect(at.visit!.entries).toEqual(entries)
    expect(at.visit!.view).not.toBe(before)
    expect(entries.map((each) => each.slot)).toEqual([...slots])
  })

  it('keeps what has no signal, over a new page, and sends it in order, each correcting the one before', async () => {
    const at = await opened()
    answer = () => ({ status: 0 })
    await at.add('safe.power_off', true)
    await at.put('found.cut_in', 53 * psi)
    expect(at.offline).toBe(true)
    const again = new VisitState('v')
    expect(again.waiting.map((each) => each.slot)).toEqual(['safe.power_off', 'found.cut_in'])
    answer = () => undefined
    await again.load()
    await again.put('found.cut_in', 33 * psi)
    expect(entries.map((each) => each.slot)).toEqual([
      'safe.power_off',
      'found.cut_in',
      'found.cut_in',
    ])
    expect(entries[2]!.supersedes).toBe(entries[1]!.id)
    expect(again.waiting).toEqual([])
  })

  it('shows what was refused as it was typed, with the reason, until it is corrected', async () => {
    const at = await opened()
    answer = () => ({
      status: 422,
      body: { title: 'no', faults: [{ path: 'value', message: 'is not a number' }] },
    })
    await at.put('found.cut_in', '4o')
    expect(at.value('found.cut_in')).toBe('4o')
    expect(at.faultsAt('found.cut_in')).toHaveLength(1)
    answer = () => undefined
    await at.put('found.cut_in', 40 * psi)
    expect(at.faultsAt('found.cut_in')).toEqual([])
    expect(at.value('found.cut_in')).toBe(40 * psi)
  })

  it('offers both values when somebody else was first, and corrects theirs only when told to', async () => {
    const at = await opened()
    const current = {
      slot: 'found.cut_in',
      entry: 'theirs',
      value: 33 * psi,
      yours: 35 * psi,
      by: 'Owner',
    }
    answer = () => ({ status: 409, body: { title: 'first', faults: [], current } })
    await at.put('found.cut_in', 35 * psi)
    expect(at.clashes).toEqual([current])
    expect(at.waiting).toEqual([])
    answer = () => undefined
    await at.settle(at.clashes[0]!, true)
    expect(entries[0]).toMatchObject({ value: 35 * psi, supersedes: 'theirs' })
    expect(at.clashes).toEqual([])
  })

  it('keeps a first clash when a second comes, and both when the page is opened again', async () => {
    const at = await opened()
    const first = (entry: string) => ({
      status: 409,
      body: { title: 'first', faults: [], current: { entry, by: 'O' } },
    })
    answer = (entry) => first(`theirs of ${entry.slot}`)
    await at.put('found.cut_in', 35 * psi)
    await at.put('found.cut_out', 55 * psi)
    const again = new VisitState('v')
    expect(again.clashes.map((clash) => clash.yours)).toEqual([35 * psi, 55 * psi])
  })

  it('drops what was asked before a record was sent, however late the answer comes', async () => {
    const at = await opened()
    let late = () => {}
    holdGet = new Promise((done) => (late = done))
    const poll = at.load()
    const before = body()
    held = before
    await at.put('found.cut_in', 35 * psi)
    expect(at.visit!.entries).toHaveLength(1)
    late()
    await poll
    expect(at.visit!.entries).toHaveLength(1)
  })

  it('shows a series with what waits, and a correction in place of what it corrects', async () => {
    const at = await opened()
    await at.add('lap', { run_s: 60 })
    answer = () => ({ status: 0 })
    await at.add('lap', { run_s: 61 }, entries[0]!.id)
    await at.add('lap', { run_s: 62 })
    expect(at.series('lap').map((each) => each.value)).toEqual([{ run_s: 61 }, { run_s: 62 }])
  })

  it('tells how power stands by what waits, too', async () => {
    const at = await opened()
    answer = () => ({ status: 0 })
    await at.add('safe.power_off', true)
    expect(at.standing.power).toBe('unknown')
    await at.add('safe.proved_dead', true)
    expect(at.standing.power).toBe('off')
    await at.add('safe.power_up', true)
    expect(at.standing.power).toBe('on')
    expect(at.done('proved_dead')).toBe(false)
    await at.add('safe.power_off', true)
    expect(at.standing.power).toBe('unknown')
    expect(at.done('power_up')).toBe(false)
  })
})

describe('words of a visit', () => {
  it('say turns in turnWords and which way', () => {
    expect([1.25, -0.125, 2, 0, 0.1875].map(turnWords)).toEqual(['1 1/4', '−1/8', '2', '0', '3/16'])
    expect([1, -1, 0].map(way)).toEqual(['clockwise', 'anticlockwise', 'not turned'])
  })

  it('say a recorded value whatever its slot', () => {
    const seen = {
      first: 1.5,
      second: 0,
      after: 2,
      cut_in_gauge_pa: 40 * psi,
      cut_out_gauge_pa: 60 * psi,
    }
    expect(inWords('try', seen, 'us')).toBe('40 psi / 60 psi, 1 1/2 turn')
    expect(
      inWords('leak', { first_gauge_pa: 60 * psi, later_gauge_pa: 58 * psi, seconds: 600 }, 'us'),
    ).toBe('60 psi / 58 psi / 600 s')
    expect(inWords('prove.dip', false, 'us')).toBe('no')
    expect(inWords('note', { text: 'tight' }, 'us')).toBe('tight')
    expect(inWords('found.cut_in', null, 'us')).toBe('none')
  })

  it('take the server’s word where nothing waits', () => {
    const on = {
      ...view,
      power: 'on',
      power_up: { id: 'power_up', done: true },
    } as unknown as Schemas['VisitView']
    expect(standing(on, []).power).toBe('on')
  })
})
