import { describe, expect, it } from 'vitest'
import { corrected } from './corrections'

describe('a correction of a closed visit', () => {
  const found = {
    slot: 'found.cut_in' as const,
    field: null,
    title: '',
    entry: 'a',
    value: null,
    gauge_pa: 3e5,
  }
  const look = { first: 2, second: 0, cut_in_gauge_pa: 2e5, cut_out_gauge_pa: 4e5 }
  it('names the entry it corrects', () => {
    expect(corrected(found, 2e5)).toEqual({ slot: 'found.cut_in', value: 2e5, supersedes: 'a' })
  })
  it('keeps the rest of a look', () => {
    const made = corrected(
      { ...found, slot: 'try', field: 'cut_out_gauge_pa', value: look, gauge_pa: 4e5 },
      3.9e5,
    )
    expect(made?.value).toEqual({ ...look, cut_out_gauge_pa: 3.9e5 })
  })
  it('is none where nothing changes', () => {
    expect(corrected(found, 3e5)).toBeUndefined()
    expect(corrected(found, null)).toBeUndefined()
  })
})
