import { describe, expect, it } from 'vitest'
import type { SystemFile } from '../api/client'
import { assumedUnder, shownAt, typedAt, valueAt, withoutNotes, withRead, withValue } from './file'
import { KIND_WORDS, plateOf, platesFor } from './plates'
import { unitFor } from './units'

const CUT_IN = 'settings.cut_in_gauge_pa'
const psi = unitFor('pressure', 'us').factor
const file = {
  format: 'zerodip-system',
  version: 1,
  system: { tanks: [{ volume_m3: 0.1 }, { volume_m3: 0.2 }] },
  settings: { cut_in_gauge_pa: 40 * psi },
} as unknown as SystemFile

describe('a system file', () => {
  it('is changed by path, never in place', () => {
    const changed = withValue(file, 'system.tanks.1.volume_m3', 0.3)
    expect(valueAt(changed, 'system.tanks.1.volume_m3')).toBe(0.3)
    expect(valueAt(file, 'system.tanks.1.volume_m3')).toBe(0.2)
    expect(valueAt(changed, 'system.tanks.0')).toBe(valueAt(file, 'system.tanks.0'))
  })

  it('keeps a typed value as typed, and in SI', () => {
    const changed = typedAt(file, CUT_IN, '41.25', 'pressure', 'us')
    expect(valueAt(changed, CUT_IN)).toBeCloseTo(41.25 * psi, 6)
    expect(shownAt(changed, CUT_IN, 'pressure', 'us')).toBe('41.25')
    expect(shownAt(changed, CUT_IN, 'pressure', 'metric')).toBe('2.84')
    expect(changed.entered).toEqual({ [CUT_IN]: { text: '41.25', unit: 'psi' } })
  })

  it('loses nothing that is no number, and empties a field that is emptied', () => {
    const odd = typedAt(file, CUT_IN, '4o', 'pressure', 'us')
    expect(shownAt(odd, CUT_IN, 'pressure', 'us')).toBe('4o')
    expect(odd.entered).toEqual({})
    expect(valueAt(typedAt(odd, CUT_IN, ' ', 'pressure', 'us'), CUT_IN)).toBeNull()
  })

  it('marks usual values until they are read, set or confirmed', () => {
    const marks = {
      [CUT_IN]: true,
      'system.tanks.0.volume_m3': true,
      'system.tanks.1.volume_m3': true,
    }
    const usual = withValue(file, 'system.assumed', marks)
    expect(assumedUnder(usual, 'system.tanks')).toHaveLength(2)
    expect(assumedUnder(typedAt(usual, CUT_IN, '41', 'pressure', 'us'), 'settings')).toEqual([])
    expect(assumedUnder(withoutNotes(usual, 'system.tanks'), 'system')).toEqual([])
    const confirmed = withRead(usual, 'system.tanks.0.volume_m3')
    expect(assumedUnder(confirmed, 'system')).toEqual(['system.tanks.1.volume_m3'])
    expect(valueAt(confirmed, 'system.tanks.0.volume_m3')).toBe(0.1)
    expect(withRead(file, 'settings')).toBe(file)
  })

  it('forgets what was typed below a part that is exchanged', () => {
    const typed = typedAt(file, 'system.tanks.0.volume_m3', '30', 'volume', 'us')
    expect(withoutNotes(typed, 'system.tanks').entered).toEqual({})
    expect(Object.keys(withoutNotes(typed, 'system.tank').entered ?? {})).toHaveLength(1)
  })

  it('knows on which plate a fault is corrected', () => {
    expect(plateOf('well_bladder', CUT_IN)?.id).toBe('switch')
    expect(plateOf('boosted', 'entered.system.tanks.0.volume_m3')?.id).toBe('tank')
    expect(plateOf('cistern', 'system.pump.points.1.head_m')?.id).toBe('pump')
    expect(plateOf('well_air', 'version')).toBeUndefined()
    expect(plateOf('tankless', 'settings.pre_charge_gauge_pa')?.title).toBe('Accumulator')
    expect(plateOf('compressor', 'system.leak_test.seconds')?.title).toBe('Tools, leaks')
  })

  it('sums up the plates of every kind without a reading missing', () => {
    for (const kind of Object.keys(KIND_WORDS)) {
      const bare = {
        system: { kind, tanks: [{}], receivers: [{}], outlets: [{}], pump: { points: [{}] } },
        settings: {},
      }
      for (const plate of platesFor(kind)) {
        expect(plate.summary(bare as never, 'us').join(' ')).not.toMatch(/undefined|NaN/)
        expect(plate.sections(bare as never).length).toBeGreaterThan(0)
      }
    }
  })
})
