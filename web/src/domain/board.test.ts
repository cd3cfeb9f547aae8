import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { unitFor } from './units'
import { BoardState, gripPath } from './board.svelte'

const psi = unitFor('pressure', 'us').factor
const document = {
  format: 'zerodip-system',
  version: 1,
  system: { name: 'A well' },
  settings: {
    cut_in_gauge_pa: 40 * psi,
    cut_out_gauge_pa: 60 * psi,
    pre_charge_gauge_pa: 38 * psi,
  },
}
const system = {
  id: 's',
  name: 'A well',
  version: 3,
  may_change: true,
  document,
  decisions: [],
  site: { id: 'x', units: 'us' },
}
const grip = {
  least_gauge_pa: 41 * psi,
  most_gauge_pa: 75.4 * psi,
  least_reason: 'low',
  most_reason: 'relief',
}
const decided = {
  decision: { chart: { type: 'ribbon', grips: { cut_out: grip } } },
  simulation: {},
}

type Answer = { status?: number; body?: unknown }
let answers: Record<string, (request: Request) => Answer | Promise<Answer>>
let asked: { key: string; body: Record<string, unknown> }[]

beforeEach(() => {
  localStorage.clear()
  asked = []
  answers = {
    'GET /api/systems/s': () => ({ body: system }),
    'POST /api/decide': () => ({ body: decided }),
  }
  vi.stubGlobal('fetch', async (request: Request) => {
    const key = `${request.method} ${new URL(request.url).pathname.replace(/decisions\/.*/, 'decisions')}`
    const text = await request.clone().text()
    asked.push({ key, body: text ? JSON.parse(text) : {} })
    const { status = 200, body } = (await answers[key]?.(request)) ?? {
      status: 404,
      body: { title: 'none', faults: [] },
    }
    return new Response(JSON.stringify(body), {
      status,
      headers: { 'Content-Type': 'application/json' },
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

async function loaded() {
  const board = new BoardState('s')
  await board.load()
  return board
}
const settled = () =>
  vi.waitFor(() =>
    expect(asked.filter(({ key }) => key.startsWith('POST')).length).toBeGreaterThan(1),
  )

describe('the board', () => {
  it('moves a grip in whole steps and holds it at the limit with the reason', async () => {
    const board = await loaded()
    board.move('cut_out', 64.3 * psi)
    expect(board.shown(gripPath('cut_out'), 'pressure')).toBe('64')
    expect(board.held).toBe('')
    board.move('cut_out', 90 * psi)
    expect(board.shown(gripPath('cut_out'), 'pressure')).toBe('75')
    expect(board.held).toBe('relief')
    await settled()
  })

  it('asks only for the latest state while an answer is under way', async () => {
    const board = await loaded()
    for (const to of [61, 62, 63, 64, 65]) board.move('cut_out', to * psi)
    await settled()
    await vi.waitFor(() => {
      const last = asked.at(-1)!.body.document as typeof document
      expect(last.settings.cut_out_gauge_pa).toBeCloseTo(65 * psi, 3)
    })
    expect(asked.filter(({ key }) => key === 'POST /api/decide').length).toBeLessThanOrEqual(3)
  })

  it('brings back on a new page what was not kept, unless somebody changed the same values', async () => {
    const board = await loaded()
    board.move('cut_out', 65 * psi)
    await settled()
    const again = await loaded()
    expect(again.restored).toBe(true)
    expect(again.shown(gripPath('cut_out'), 'pressure')).toBe('65')
    const moved = (document: unknown) => () => ({ body: { ...system, version: 4, document } })
    answers['GET /api/systems/s'] = moved({ ...document, system: { name: 'Another name' } })
    const merged = await loaded()
    expect(merged.shown(gripPath('cut_out'), 'pressure')).toBe('65')
    expect(merged.value('system.name')).toBe('Another name')
    answers['GET /api/systems/s'] = moved({
      ...document,
      settings: { ...document.settings, cut_out_gauge_pa: 70 * psi },
    })
    expect((await loaded()).restored).toBe(false)
  })

  it('keeps under the same id when trying again after no answer', async () => {
    const board = await loaded()
    const ids: string[] = []
    answers['PUT /api/systems/s/decisions'] = (request) => {
      ids.push(request.url)
      if (ids.length === 1) throw new TypeError('no network')
      return { body: { id: 'd', document: board.file, made_by: 'me', made_at: '' } }
    }
    board.move('cut_out', 65 * psi)
    await board.save()
    expect(board.problem?.title).toBe('No answer from the server')
    expect(board.dirty).toBe(true)
    await board.save()
    expect(ids[0]).toBe(ids[1])
    expect(board.dirty).toBe(false)
    expect(board.system?.version).toBe(4)
    expect(localStorage.getItem('zerodip.draft.s')).toBeNull()
  })

  it('keeps plates read on site by themselves, on top of what a visit found meanwhile', async () => {
    const board = await loaded()
    const sent: Record<string, unknown>[] = []
    const moved = { ...document, found: { air: 27 } }
    answers['PUT /api/systems/s'] = async (request) => {
      sent.push((await request.clone().json()) as Record<string, unknown>)
      if (sent.length > 1) return { body: { ...system, version: 5, document: sent[1]!.document } }
      answers['GET /api/systems/s'] = () => ({ body: { ...system, version: 4, document: moved } })
      return { status: 409, body: { title: 'first', faults: [] } }
    }
    board.put('system.name', 'Read off the plate')
    await board.keepPlates()
    expect(sent.map((each) => each.version)).toEqual([3, 4])
    expect(sent[1]!.document).toMatchObject({
      system: { name: 'Read off the plate' },
      found: { air: 27 },
    })
    expect(board.dirty).toBe(false)
    expect(localStorage.getItem('zerodip.draft.s')).toBeNull()
  })

  it('does not keep plates while settings lie on the board', async () => {
    const board = await loaded()
    board.move('cut_out', 65 * psi)
    board.put('system.name', 'Read off the plate')
    await board.keepPlates()
    expect(asked.some(({ key }) => key === 'PUT /api/systems/s')).toBe(false)
    expect(board.dirty).toBe(true)
    await settled()
  })

  it('offers both values when somebody else was first', async () => {
    const board = await loaded()
    const current = { version: 9, document: { ...document, system: { name: 'Theirs' } } }
    answers['PUT /api/systems/s/decisions'] = () => ({
      status: 409,
      body: { title: 'first', faults: [], current },
    })
    board.move('cut_out', 65 * psi)
    await board.save()
    expect(board.conflict?.current).toEqual(current)
    await board.settle(false)
    expect(board.system?.version).toBe(9)
    expect(board.value('system.name')).toBe('Theirs')
  })

  it('shows faults by field and keeps what was typed', async () => {
    const board = await loaded()
    const fault = {
      path: gripPath('cut_in'),
      code: 'not_a_number',
      message: 'Cut-in is not a number.',
      allowed: '',
    }
    answers['POST /api/decide'] = () => ({ status: 422, body: { title: 'no', faults: [fault] } })
    board.type(gripPath('cut_in'), '4o', 'pressure')
    await vi.waitFor(() => expect(board.faultsAt(gripPath('cut_in'))).toEqual([fault]))
    expect(board.shown(gripPath('cut_in'), 'pressure')).toBe('4o')
    expect(board.faultsUnder('settings')).toHaveLength(1)
    expect(board.problem).toBeUndefined()
  })

  it('takes cut-in along by as much where one screw moves both', async () => {
    const linked = { ...grip, takes_along: 'cut_in' }
    answers['POST /api/decide'] = () => ({
      body: {
        decision: { chart: { type: 'ribbon', grips: { cut_out: linked } } },
        simulation: null,
      },
    })
    const board = await loaded()
    board.move('cut_out', 55 * psi)
    expect(board.shown(gripPath('cut_out'), 'pressure')).toBe('55')
    expect(board.value(gripPath('cut_in'))).toBeCloseTo(35 * psi, 6)
    expect(board.grips).toEqual(['cut_out'])
    await settled()
  })

  it('moves the grips of a window as those of a ribbon', async () => {
    answers['POST /api/decide'] = () => ({
      body: {
        decision: { chart: { type: 'window', grips: { cut_in: grip, cut_out: grip } } },
        simulation: null,
      },
    })
    const board = await loaded()
    expect(board.grips).toEqual(['cut_out', 'cut_in'])
    board.move('cut_out', 100 * psi)
    expect(board.held).toBe('relief')
    await settled()
  })

  it('takes what was proposed, whole, and forgets what was typed before', async () => {
    const board = await loaded()
    board.type(gripPath('cut_in'), '41', 'pressure')
    const way = {
      cut_in_gauge_pa: 30 * psi,
      cut_out_gauge_pa: 50 * psi,
      pre_charge_gauge_pa: null,
      air_renewed: false,
    }
    board.take(way as never)
    expect(board.value('settings')).toEqual({ ...way, air_renewed: null })
    expect(board.file?.entered).toEqual({})
    expect(board.dirty).toBe(true)
    await settled()
  })

  it('knows the practice of the workspace that the system is in', async () => {
    answers['GET /api/systems/s'] = () => ({ body: { ...system, workspace: 'w' } })
    answers['GET /api/practices'] = () => ({
      body: [{ workspace: 'v' }, { workspace: 'w', name: 'Ours' }],
    })
    const board = await loaded()
    await vi.waitFor(() => expect(board.practice?.name).toBe('Ours'))
  })

  it('tells how sure the results are once nothing moves any more', async () => {
    const certainty = { results: [], edges: [], narrow: null }
    answers['POST /api/decide'] = async (request) => {
      const { sure } = (await request.clone().json()) as { sure: boolean }
      return { body: { decision: { ...decided.decision, certainty: sure ? certainty : null } } }
    }
    const board = await loaded()
    await vi.waitFor(() => expect(board.certainty).toEqual(certainty))
    for (const to of [55, 56, 57]) board.move('cut_out', to * psi)
    expect(board.certainty).toBeUndefined()
    await vi.waitFor(() => expect(board.certainty).toEqual(certainty))
  })

  it('keeps settings as decided on, and plates as usual values until they are confirmed', async () => {
    const flow = 'system.pump.flow_m3_s'
    const assumed = { 'settings.cut_in_gauge_pa': true, [flow]: true }
    const usual = { ...document, system: { ...document.system, assumed } }
    answers['GET /api/systems/s'] = () => ({ body: { ...system, document: usual } })
    answers['PUT /api/systems/s/decisions'] = () => ({ body: { id: 'd' } })
    const board = await loaded()
    expect([board.usualUnder('settings'), board.usualUnder('system.pump')]).toEqual([1, 1])
    await board.save()
    const { body } = asked.find(({ key }) => key === 'PUT /api/systems/s/decisions')!
    expect(body).toMatchObject({ document: { system: { assumed: { [flow]: true } } } })
    expect(board.usualUnder('settings')).toBe(0)
    board.confirm(flow)
    expect(board.usualUnder('system')).toBe(0)
    expect(board.dirty).toBe(true)
  })
})
