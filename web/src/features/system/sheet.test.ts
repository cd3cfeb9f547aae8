import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { preferences } from '../../domain/preferences.svelte'
import { SheetState } from './sheet.svelte'

const system = { id: 's', name: 'Well', site: { id: 'x', units: 'metric' }, may_change: true }
let asked: string[]
let answers: Record<string, () => unknown>

beforeEach(() => {
  preferences.setUnits('us')
  asked = []
  answers = {
    'GET /api/systems/s': () => system,
    'PUT /api/systems/s/retired': () => ({ ...system, retired: true }),
    'PATCH /api/sites/x': () => system.site,
  }
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname, search } = new URL(request.url)
    asked.push(`${request.method} ${pathname}${search}`)
    const found = answers[`${request.method} ${pathname.replace(/visits\/.*/, 'visits')}`]
    if (!found) throw new TypeError('no signal')
    return new Response(JSON.stringify(await found()), {
      headers: { 'Content-Type': 'application/json' },
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

describe('the sheet of a system', () => {
  it('takes on the units of its site before it asks for more', async () => {
    const at = new SheetState('s')
    await at.load()
    expect(preferences.units).toBe('metric')
    expect(at.system?.name).toBe('Well')
  })

  it('drops a timeline in units that were left since', async () => {
    const at = new SheetState('s')
    let late: (told: unknown) => void = () => {}
    answers['GET /api/systems/s/timeline'] = () => new Promise((done) => (late = done))
    const first = at.askTimeline('us')
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    answers['GET /api/systems/s/timeline'] = () => [{ says: 'in bar', open: true }]
    await at.askTimeline('metric')
    late([{ says: 'in psi', open: false }])
    await first
    expect(at.moments.map((each) => each.says)).toEqual(['in bar'])
    expect(at.running).toBe(true)
  })

  it('says what went wrong when a visit cannot be opened, and keeps what it shows', async () => {
    const at = new SheetState('s')
    await at.load()
    expect(await at.visit()).toBeUndefined()
    expect(at.problem?.status).toBe(0)
    expect(at.system?.name).toBe('Well')
    answers['PUT /api/systems/s/visits'] = () => ({ id: 'v' })
    expect(await at.visit()).toBe('v')
  })

  it('keeps the units for everybody only where this person may', async () => {
    const at = new SheetState('s')
    await at.setUnits('kpa')
    expect(asked).toEqual([])
    await at.load()
    await at.setUnits('kpa')
    expect(asked.at(-1)).toBe('PATCH /api/sites/x')
    await at.retire(true)
    expect(at.system?.retired).toBe(true)
  })
})
