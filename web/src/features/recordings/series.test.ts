import { describe, expect, it } from 'vitest'
import { bars, series } from './series'

const line = (time_s: number[], pa: (number | null)[] = time_s) => ({
  time_s,
  least_pa: pa,
  most_pa: pa,
  gap_s: 5,
})
const as = (pa: number) => pa * 2

describe('a window as the plot wants it', () => {
  it('shows least and most in the unit asked for', () => {
    const [time, least, most] = series(line([1, 2, 3], [10, 20, 30]), undefined, as)
    expect(time).toEqual([1, 2, 3])
    expect(least).toEqual([20, 40, 60])
    expect(most).toEqual(least)
  })
  it('leaves a gap a gap', () => {
    const [time, least] = series(line([1, 2, 3, 60, 61, 62]), undefined, as)
    expect(time).toHaveLength(7)
    expect(least[3]).toBeNull()
  })
  it('makes none of buckets that are far apart because the window is wide', () => {
    const wide = Array.from({ length: 20 }, (_, at) => at * 60)
    const [, least] = series(line(wide), undefined, as)
    expect(least).not.toContain(null)
  })
  it('keeps what is missing missing', () => {
    const [, least] = series(line([1, 2, 3], [1, null, 3]), undefined, as)
    expect(least).toEqual([2, null, 6])
  })
  it('lays a prediction over it, within its ends alone', () => {
    const predicted = { time_s: [2, 4], gauge_pa: [100, 200], run_s: 2 }
    const [, , , over] = series(line([1, 2, 3, 4, 5]), predicted, as)
    expect(over).toEqual([null, 200, 300, 400, null])
  })
  it('draws nothing of nothing', () => {
    expect(series(undefined, undefined, as)).toEqual([[], [], [], []])
  })
})

describe('bars of least and most', () => {
  const same = (value: number) => value
  const down = (value: number) => 100 - value
  it('each reaches the one before, so that a steep line has no holes', () => {
    const made = bars([[0, 10, 20], [10, 40, 45], [20, 50, 60], []], same, down)
    expect(made).toEqual([
      [0, 80, 10, 10],
      [10, 50, 10, 30],
      [20, 40, 1, 15],
    ])
  })
  it('leaves a gap a gap, and shows what stands still', () => {
    const made = bars([[0, 10, 20], [30, null, 30], [30, null, 30], []], same, down)
    expect(made).toEqual([
      [0, 70, 1, 1],
      [20, 70, 1, 1],
    ])
  })
})
