import { describe, expect, it } from 'vitest'
import { unitFor } from '../domain/units'
import { area, curve, heights, keyTarget, labelHeight, spread, stillFits } from './ribbon'
import { height, valueAtHeight } from './scale'

const units = {
  pressure: unitFor('pressure', 'us'),
  held: unitFor('volume', 'us'),
  duration: unitFor('duration', 'us'),
}
const psi = units.pressure.factor
const level = (gauge: number, gallons: number, run_s: number | null) => ({
  gauge_pa: gauge * psi,
  held_m3: gallons * units.held.factor,
  run_s,
})
const scale = (least: number, most: number) => ({ least, most, ticks: [] })
const ribbon = {
  type: 'ribbon' as const,
  holds: 'water',
  held_title: 'Water in the tank',
  held_dimension: 'volume' as const,
  flow_dimension: 'flow' as const,
  settled: null,
  tank_head_pa: 0,
  ghost: [],
  cut_out: level(60, 13.2, 69),
  cut_in: level(40, 1.6, 0),
  pre_charge: level(38, 0, -10),
  threads: [],
  marks: [],
  grips: {},
  dips: false,
  scales: {
    gauge: scale(30 * psi, 80 * psi),
    held: scale(0, 20 * units.held.factor),
    run: scale(-20, 100),
  },
}
const frame = { xs: [100, 400, 700] as [number, number, number], top: 30, bottom: 430 }

describe('the ribbon', () => {
  it('keeps its scales as long as they hold everything', () => {
    expect(stillFits(ribbon.scales, ribbon)).toBe(true)
    expect(stillFits(ribbon.scales, { ...ribbon, cut_out: level(90, 13.2, 69) })).toBe(false)
  })

  it('puts cut-in at nothing on the time scale and the empty tank at the foot of the water', () => {
    const scales = ribbon.scales
    expect(heights(ribbon.pre_charge, scales, frame)[1]).toBe(frame.bottom)
    expect(
      valueAtHeight(heights(ribbon.cut_in, scales, frame)[2], scales.run, frame.top, frame.bottom),
    ).toBeCloseTo(0)
  })

  it('lets a pump that never stops leave at the top', () => {
    const never = heights(level(95, 14, null), ribbon.scales, frame)
    expect(never[2]).toBeLessThan(frame.top)
  })

  it('reads a height back as the value it stands for, and stays within the scale', () => {
    const scale = ribbon.scales.gauge
    const y = height(47 * psi, scale, 30, 430)
    expect(valueAtHeight(y, scale, 30, 430) / psi).toBeCloseTo(47)
    expect(height(500 * psi, scale, 30, 430)).toBe(30)
  })

  it('draws curves through the scales and closes areas', () => {
    expect(curve([1, 2, 3], frame)).toBe('M100 1C250 1 250 2 400 2C550 2 550 3 700 3')
    expect(area([1, 2, 3], [4, 5, 6], frame, 1)).toBe(
      'M100 1C250 1 250 2 400 2L400 5C250 5 250 4 100 4Z',
    )
  })

  it('pushes labels apart in their order and between the ends', () => {
    expect(spread([100, 104, 300], 40, 0, 400)).toEqual([100, 140, 300])
    expect(spread([390, 380, 395], 40, 0, 400)).toEqual([360, 320, 400])
  })

  it('puts a label into the band, or above one too thin for it', () => {
    const wide = {
      cut_out: [100, 100, 100] as [number, number, number],
      cut_in: [200, 200, 200] as [number, number, number],
    }
    expect(labelHeight(wide, frame, 0, 100)).toBe(156)
    expect(labelHeight({ ...wide, cut_in: [110, 110, 110] }, frame, 1, 30)).toBe(90)
    expect(labelHeight({ ...wide, cut_out: [100, 190, 190] }, frame, 0, 100)).toBeLessThan(145)
  })

  it('moves by one step, by five, or to a limit, and leaves other keys alone', () => {
    const bounds = { least_gauge_pa: 1, most_gauge_pa: 99 }
    const to = (key: string) => keyTarget(key, 50, 2, bounds)
    expect(['ArrowUp', 'ArrowLeft', 'PageUp', 'PageDown', 'Home', 'End'].map(to)).toEqual([
      52, 48, 60, 40, 1, 99,
    ])
    expect(to('Enter')).toBeUndefined()
  })
})
