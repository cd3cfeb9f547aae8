import { describe, expect, it } from 'vitest'
import { editable, listIn, typed, valuesOf } from './quantity'
import { parse, SYSTEMS, unitFor, unitOf, type Dimension } from './units'

describe('a quantity in its box', () => {
  it('reads back as what it shows, in every unit', () => {
    for (const { id } of SYSTEMS)
      for (const dimension of ['pressure', 'volume', 'flow', 'length'] as Dimension[])
        for (const value of [0, 1, 1034, 250_000, 1_034_000].map(
          (part) => part * unitFor(dimension, id).factor,
        )) {
          const unit = unitFor(dimension, id)
          const again = typed(editable(value, unit), dimension, id).value as number
          expect(Math.abs(again - value)).toBeLessThanOrEqual(unit.factor * Math.max(0.5, 1e-3))
        }
  })
  it('keeps the text of who types, and what is no number', () => {
    expect(typed('30.0', 'pressure', 'us')).toMatchObject({ text: '30.0', unit: 'psi' })
    expect(typed('thirty', 'pressure', 'us').value).toBe('thirty')
    expect(typed(' ', 'pressure', 'us').value).toBeNull()
  })
  it('does not guess at a comma that may stand for thousands or for tenths', () => {
    expect(parse('1,034')).toBeNull()
    expect(parse('2,5')).toBe(2.5)
    expect(parse('0,035')).toBe(0.035)
  })
})

describe('a list of quantities', () => {
  const sizes = { text: '20 44', unit: 'gal' }
  it('is converted when units are switched, and comes back as typed', () => {
    expect(listIn(unitFor('volume', 'metric'), sizes)).toBe('76 167')
    expect(listIn(unitFor('volume', 'us'), sizes)).toBe('20 44')
    expect(valuesOf(sizes)).toEqual([20, 44].map((size) => size * unitOf('gal').factor))
  })
  it('keeps what is no number for the server to name', () => {
    expect(valuesOf({ text: '20 big', unit: 'gal' })?.[1]).toBe('big')
    expect(valuesOf({ text: ' ', unit: 'gal' })).toBeNull()
  })
})
