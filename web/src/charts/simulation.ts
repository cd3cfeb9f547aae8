import { scaleLinear } from 'd3-scale'
import type { Schemas } from '../api/client'
import type { Unit } from '../domain/units'
import { heightsOn, niceScale } from './scale'

export const FRAME = { left: 52, right: 12, top: 10, bottom: 88, tall: 118 }
const EVERY_MIN = 5

export interface Span {
  x: number
  width: number
}

/** Where the line of a quarter of an hour, its spans and its minutes lie on a picture of this width. */
export function plotted(shown: Schemas['Simulation'], pressure: Unit, width: number) {
  const { times_s, gauges_pa, pump_spans_s, dip_spans_s } = shown.trail
  const x = scaleLinear([0, shown.seconds], [FRAME.left, width - FRAME.right])
  const scale = niceScale(Math.min(...gauges_pa), Math.max(...gauges_pa), pressure, 3)
  const y = heightsOn(scale, FRAME.top, FRAME.bottom)
  const spans = (of: number[][]): Span[] =>
    of.map(([from = 0, to = 0]) => ({ x: x(from), width: Math.max(x(to) - x(from), 0) }))
  return {
    y,
    line: times_s.map((s, at) => `${x(s).toFixed(1)},${y(gauges_pa[at]!).toFixed(1)}`).join(' '),
    pump: spans(pump_spans_s),
    dips: spans(dip_spans_s),
    minutes: minutes(shown.seconds / 60).map((minute) => ({ minute, x: x(minute * 60) })),
  }
}

const minutes = (whole: number) =>
  Array.from({ length: Math.floor(whole / EVERY_MIN) + 1 }, (_, at) => at * EVERY_MIN)
