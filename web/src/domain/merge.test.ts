import { describe, expect, it } from 'vitest'
import { merged } from './merge'

const base = { settings: { in: 40, out: 60 }, found: { air: null }, tanks: [{ volume: 1 }] }

describe('a merge', () => {
  it('takes from each side what only it changed', () => {
    const ours = { ...base, settings: { in: 40, out: 65 }, note: 'new' }
    const theirs = { ...base, found: { air: 27 } }
    expect(merged(base, ours, theirs)).toEqual({
      ...base,
      settings: { in: 40, out: 65 },
      found: { air: 27 },
      note: 'new',
    })
  })

  it('is none where both changed one value differently, lists whole', () => {
    const [ours, theirs] = [
      { ...base, tanks: [{ volume: 2 }] },
      { ...base, tanks: [{ volume: 3 }] },
    ]
    expect(merged(base, ours, theirs)).toBeUndefined()
    expect(merged(base, ours, ours)).toEqual(ours)
  })

  it('leaves out what one side took out', () => {
    const ours = { settings: base.settings, tanks: base.tanks }
    expect(merged(base, ours, { ...base, note: 'theirs' })).toEqual({ ...ours, note: 'theirs' })
  })
})
