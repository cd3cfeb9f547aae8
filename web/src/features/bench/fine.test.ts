import { describe, expect, it } from 'vitest'
import { fine, figure, stepOf } from './fine'

describe('a pressure as finely as the reference is read', () => {
  it('has as many places as one finest reading needs', () => {
    expect(fine(300_466, 100, 'kpa')).toBe('300.5 kPa')
    expect(fine(300_466, 1000, 'kpa')).toBe('300 kPa')
    expect(figure(-60_100, 100, 'metric')).toBe('-0.601')
    expect(figure(-1, 100, 'kpa')).toBe('0.0')
    expect(fine(-12.5 * 3386.389, 169, 'inHg')).toBe('-12.50 inHg')
    expect(fine(2490.889, 5, 'inH2O')).toBe('10.00 inH₂O')
  })
  it('steps by a round figure of the unit', () => {
    expect(stepOf(100, 'kpa')).toBeCloseTo(100)
    expect(stepOf(68.94757, 'us') / 6894.757).toBeCloseTo(0.01)
    expect(stepOf(300, 'kpa')).toBeCloseTo(500)
  })
})
