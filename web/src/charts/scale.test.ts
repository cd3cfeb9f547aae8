import { describe, expect, it } from 'vitest'
import { unitFor } from '../domain/units'
import { height, niceScale, valueAtHeight } from './scale'

describe('a scale', () => {
  it('has ticks in round numbers of the unit, around what it holds', () => {
    const unit = unitFor('pressure', 'metric')
    const scale = niceScale(2.13e5, 4.87e5, unit, 3)
    expect(scale.ticks.map((pa) => pa / 1e5)).toEqual([2, 3, 4, 5])
    expect([scale.least, scale.most]).toEqual([2e5, 5e5])
  })
  it('has two ends even where everything is the same', () => {
    const scale = niceScale(2e5, 2e5, unitFor('pressure', 'metric'), 3)
    expect(scale.most).toBeGreaterThan(scale.least)
  })
  it('keeps a value beyond its end at the end, and reads a height beyond it on', () => {
    const scale = { least: 0, most: 10, ticks: [] }
    expect([-5, 5, 50].map((value) => height(value, scale, 0, 100))).toEqual([100, 50, 0])
    expect([100, 50, -10].map((y) => valueAtHeight(y, scale, 0, 100))).toEqual([0, 5, 11])
  })
})
