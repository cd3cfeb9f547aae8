import { describe, expect, it } from 'vitest'
import { plotted } from './trend'

const at = (year: number, value: number, left = false) => ({
  visit: `v${year}`,
  at_s: Date.UTC(year, 5, 1) / 1000,
  value,
  left,
})

describe('a trend', () => {
  it('lies within its picture, time from left to right, more above less', () => {
    const plot = plotted([at(2023, 36), at(2024, 38), at(2026, 37)], 35, 400, 150)
    const xs = plot.points.map((point) => point.x)
    expect(xs).toEqual([...xs].sort((a, b) => a - b))
    expect(plot.points[1]!.y).toBeLessThan(plot.points[2]!.y)
    expect(plot.band).toBeGreaterThan(plot.points[0]!.y)
    for (const { x, y } of plot.points) {
      expect(x).toBeGreaterThanOrEqual(0)
      expect(x).toBeLessThanOrEqual(400)
      expect(y).toBeGreaterThan(0)
      expect(y).toBeLessThan(150)
    }
    expect(plot.years.map((year) => year.says)).toEqual(['2023', '2024', '2026'])
  })

  it('stands with one reading, and with readings that are all the same', () => {
    const one = plotted([at(2026, 38)], null, 400, 150)
    expect(one.labels).toHaveLength(1)
    expect(one.line).toBe('M16.0 68.0')
    const same = plotted([at(2025, 38), at(2026, 38)], null, 400, 150)
    expect(same.points.every((point) => Number.isFinite(point.y))).toBe(true)
  })
})
