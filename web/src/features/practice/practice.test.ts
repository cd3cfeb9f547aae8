import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { preferences } from '../../domain/preferences.svelte'
import { unitFor } from '../../domain/units'
import { PracticeState } from './practice.svelte'

const gallon = unitFor('volume', 'us').factor
const psi = unitFor('pressure', 'us').factor
const practice = {
  workspace: 'w',
  name: 'Ours',
  version: 3,
  practice: { pre_charge_school: 'two_below', gauge_error_pa: psi, reason: '' },
  sizes_m3: [20 * gallon, 44 * gallon],
  may_change: true,
}
let answer: { status: number; body: unknown }
let sent: { version: number; practice: Record<string, unknown>; sizes_m3: unknown }

beforeEach(() => {
  preferences.setUnits('us')
  answer = { status: 200, body: { ...practice, version: 4 } }
  vi.stubGlobal('fetch', async (request: Request) => {
    sent = JSON.parse(await request.clone().text())
    return new Response(JSON.stringify(answer.body), {
      status: answer.status,
      headers: { 'Content-Type': 'application/json' },
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

const opened = () => new PracticeState(practice as never)

describe('the practice of a workspace', () => {
  it('shows the sizes in the units on the page and sends them back in SI', async () => {
    const state = opened()
    expect(state.sizesIn('us')).toBe('20 44')
    expect(state.sizesIn('metric')).toBe('76 167')
    state.typeSizes('30; 62 119')
    await state.save()
    expect(sent.sizes_m3).toEqual([30 * gallon, 62 * gallon, 119 * gallon])
    expect(sent.version).toBe(3)
    expect(state.practice.version).toBe(4)
    expect(state.kept).toBe(true)
  })

  it('leaves the sizes what they are when only the units are switched', async () => {
    const state = opened()
    preferences.setUnits('metric')
    await state.save()
    expect(sent.sizes_m3).toEqual([20 * gallon, 44 * gallon])
    preferences.setUnits('us')
    state.typeSizes('20 62')
    preferences.setUnits('metric')
    await state.save()
    expect(sent.sizes_m3).toEqual([20 * gallon, 62 * gallon])
  })

  it('sends nothing for an empty list, and a word as it is, for the server to name', async () => {
    const state = opened()
    state.typeSizes(' ')
    await state.save()
    expect(sent.sizes_m3).toBeNull()
    state.typeSizes('30 big')
    const fault = {
      path: 'sizes_m3.1',
      code: 'not_a_number',
      message: 'Nominal size is not a number.',
      allowed: '',
    }
    answer = { status: 422, body: { title: 'no', status: 422, detail: '', faults: [fault] } }
    await state.save()
    expect(sent.sizes_m3).toEqual([30 * gallon, 'big'])
    expect(state.faults).toEqual([fault])
    expect(state.sizesIn('us')).toBe('30 big')
    expect(state.kept).toBe(false)
  })

  it('types a figure and puts a choice, keeping what is no number until it is corrected', async () => {
    const state = opened()
    state.type('practice.gauge_error_pa', '2', 'pressure')
    expect(state.value('practice.gauge_error_pa')).toBeCloseTo(2 * psi)
    state.type('practice.gauge_error_pa', 'two', 'pressure')
    expect(state.value('practice.gauge_error_pa')).toBe('two')
    state.put('practice.pre_charge_school', 'computed')
    await state.save()
    expect(sent.practice.pre_charge_school).toBe('computed')
    expect(sent.practice.gauge_error_pa).toBe('two')
  })

  it('lets the second of two people look at what the first kept', async () => {
    const state = opened()
    const current = {
      version: 7,
      practice: { ...practice.practice, reason: 'Theirs' },
      sizes_m3: null,
    }
    answer = {
      status: 409,
      body: { title: 'Somebody else was first', status: 409, detail: '', faults: [], current },
    }
    await state.save()
    expect(state.problem?.title).toBe('Somebody else was first')
    state.takeTheirs()
    expect(state.value('practice.reason')).toBe('Theirs')
    expect(state.practice.version).toBe(7)
    expect(state.sizesIn('us')).toBe('')
  })
})
