import { describe, expect, it } from 'vitest'
import { unitFor } from '../../lib/units'
import {
  area,
  curve,
  height,
  heights,
  keyTarget,
  labelHeight,
  niceStep,
  scaleAround,
  scalesFor,
  spread,
  stillFits,
  valueAtHeight,
} from './ribbon'

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
const ribbon = {
  holds: 'water',
  held_title: 'Water in the tank',
  held_dimension: 'volume',
  flow_dimension: 'flow',
  settled: null,
  ghost: [],
  cut_out: level(60, 13.2, 69),
  cut_in: level(40, 1.6, 0),
  pre_charge: level(38, 0, -10),
  threads: [],
  marks: [],
  grips: {},
  gauge_least_pa: 30 * psi,
  gauge_most_pa: 80 * psi,
}
const frame = { xs: [100, 400, 700] as [number, number, number], top: 30, bottom: 430 }

describe('the ribbon', () => {
  it('has scales in round numbers that hold everything', () => {
    const scales = scalesFor(ribbon, units)
    expect(scales.gauge.ticks.map((tick) => Math.round(tick / psi))).toEqual([30, 40, 50, 60, 70, 80])
    expect(scales.held.least).toBe(0)
    expect(stillFits(scales, ribbon)).toBe(true)
    expect(stillFits(scales, { ...ribbon, cut_out: level(90, 13.2, 69) })).toBe(false)
    expect([7, 0.7, 45, 300].map((span) => niceStep(span, 5))).toEqual([2, 0.2, 10, 100])
  })

  it('puts cut-in at nothing on the time scale and the empty tank at the foot of the water', () => {
    const scales = scalesFor(ribbon, units)
    expect(heights(ribbon.pre_charge, scales, frame)[1]).toBe(frame.bottom)
    expect(valueAtHeight(heights(ribbon.cut_in, scales, frame)[2], scales.run, frame.top, frame.bottom)).toBeCloseTo(0)
  })

  it('lets a pump that never stops leave at the top', () => {
    const never = heights(level(95, 14, null), scalesFor(ribbon, units), frame)
    expect(never[2]).toBeLessThan(frame.top)
  })

  it('reads a height back as the value it stands for, and stays within the scale', () => {
    const scale = scaleAround(30 * psi, 80 * psi, units.pressure, 6)
    const y = height(47 * psi, scale, 30, 430)
    expect(valueAtHeight(y, scale, 30, 430) / psi).toBeCloseTo(47)
    expect(height(500 * psi, scale, 30, 430)).toBe(30)
  })

  it('draws curves through the scales and closes areas', () => {
    expect(curve([1, 2, 3], frame)).toBe('M100 1C250 1 250 2 400 2C550 2 550 3 700 3')
    expect(area([1, 2, 3], [4, 5, 6], frame, 1)).toBe('M100 1C250 1 250 2 400 2L400 5C250 5 250 4 100 4Z')
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

  it('scales free air from not far below cut-in, and leaves room for the band as it would be re-aired', () => {
    const air = { ...ribbon, holds: 'air', cut_out: level(125, 70, 80), cut_in: level(100, 56, 0), pre_charge: null }
    const scales = scalesFor(air, units)
    expect(scales.held.least).toBeGreaterThan(0)
    expect(scales.held.most).toBeGreaterThan(70 * units.held.factor)
    const ghost = scalesFor({ ...ribbon, ghost: [level(60, 40, null), level(40, 20, null)] }, units)
    expect(ghost.held.most).toBeGreaterThan(40 * units.held.factor)
  })

  it('moves by one step, by five, or to a limit, and leaves other keys alone', () => {
    const bounds = { least_gauge_pa: 1, most_gauge_pa: 99 }
    const to = (key: string) => keyTarget(key, 50, 2, bounds)
    expect(['ArrowUp', 'ArrowLeft', 'PageUp', 'PageDown', 'Home', 'End'].map(to)).toEqual([52, 48, 60, 40, 1, 99])
    expect(to('Enter')).toBeUndefined()
  })
})
