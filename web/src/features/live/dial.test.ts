import { describe, expect, it } from 'vitest'
import { arc, at, marks, passed } from './dial'
import { toSi, unitFor } from '../../domain/units'

const PSI = toSi(1, unitFor('pressure', 'us'))

describe('the dial', () => {
  it('begins on the left, ends on the right, and stays at its ends', () => {
    expect(at(0, 100, 300)[0]).toBeCloseTo(110)
    expect(at(50, 100, 300)).toEqual([expect.closeTo(410), expect.closeTo(100)])
    expect(at(100, 100, 300)[0]).toBeCloseTo(710)
    expect(at(-5, 100, 300)).toEqual(at(0, 100, 300))
    expect(at(900, 100, 300)).toEqual(at(100, 100, 300))
    expect(arc(0, 100, 100, 300)).toMatch(/^M110\.0 400\.0A300 300 0 0 1 710\.0 400\.0$/)
  })

  it.each([
    ['us', 100 * PSI, ['0', '20', '40', '60', '80', '100']],
    ['us', 160 * PSI, ['0', '20', '40', '60', '80', '100', '120', '140', '160']],
    ['us', 300 * PSI, ['0', '50', '100', '150', '200', '250', '300']],
    ['metric', 10e5, ['0', '2', '4', '6', '8', '10']],
    ['kpa', 600e3, ['0', '100', '200', '300', '400', '500', '600']],
  ] as const)('is written in whole steps: %s to %d Pa', (system, most, written) => {
    const says = marks(most, system).map((mark) => mark.says)
    expect(says.filter(Boolean)).toEqual(written)
    expect(says.length).toBe((written.length - 1) * 4 + 1)
  })

  it('tells which limit was passed, not one that was met', () => {
    const limits = [
      { title: 'relief', gauge_pa: 75 },
      { title: 'tank', gauge_pa: 100 },
    ]
    const dial = { limits } as Parameters<typeof passed>[0]
    expect(passed(dial, 75)).toBeUndefined()
    expect(passed(dial, 75.1)?.title).toBe('relief')
    expect(passed(dial, undefined)).toBeUndefined()
  })
})
