import { expect, it } from 'vitest'
import { unitFor } from '../domain/units'
import { FRAME, plotted } from './simulation'

const psi = unitFor('pressure', 'us').factor
const shown = {
  seconds: 900,
  draw_m3_s: 0.0003,
  worst_draw_m3_s: null,
  most_draw_m3_s: 0.001,
  caption: '1 start',
  trail: {
    times_s: [0, 450, 900],
    gauges_pa: [60 * psi, 40 * psi, 60 * psi],
    pump_spans_s: [[450, 900]],
    dip_spans_s: [[300, 300]],
    starts: 1,
    dip_s: 0,
  },
}

it('lays a quarter of an hour over the width, the lowest pressure lowest', () => {
  const plot = plotted(shown, unitFor('pressure', 'us'), 900)
  const right = 900 - FRAME.right
  expect(plot.line.split(' ').map((point) => point.split(',').map(Number))).toEqual([
    [FRAME.left, FRAME.top],
    [(FRAME.left + right) / 2, FRAME.bottom],
    [right, FRAME.top],
  ])
  expect(plot.pump).toEqual([{ x: (FRAME.left + right) / 2, width: (right - FRAME.left) / 2 }])
  expect(plot.dips[0]?.width).toBe(0)
  expect(plot.minutes.map(({ minute }) => minute)).toEqual([0, 5, 10, 15])
  expect(plot.minutes.at(-1)?.x).toBe(right)
})
