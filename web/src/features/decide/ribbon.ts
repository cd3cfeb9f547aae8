import type { Schemas } from '../../lib/api/client'
import { fromSi, toSi, type Unit } from '../../lib/units'

/** Drawing only: where the server's levels fall on the three scales. */
export type Ribbon = Schemas['Ribbon']
export type Level = Schemas['Level']

export interface Scale {
  least: number
  most: number
  ticks: number[]
}

/** A step of 1, 2 or 5 times a power of ten that cuts the span into about `count`. */
export function niceStep(span: number, count: number): number {
  const rough = span / count
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].find((candidate) => candidate * power >= rough) ?? 10
  return step * power
}

/** A scale in the unit's own round numbers around two SI values. */
export function scaleAround(least: number, most: number, unit: Unit, count: number): Scale {
  const [low, high] = [fromSi(least, unit), fromSi(most, unit)]
  const step = niceStep(Math.max(high - low, unit.step), count)
  const first = Math.floor(low / step + 1e-6)
  const last = Math.max(Math.ceil(high / step - 1e-6), first + 2)
  const ticks = Array.from({ length: last - first + 1 }, (_, at) => toSi((first + at) * step, unit))
  return { least: ticks[0]!, most: ticks.at(-1)!, ticks }
}

export const within = (scale: Scale, ...values: number[]) =>
  values.every((value) => value >= scale.least && value <= scale.most)

/** Height on a scale, top to bottom; a value beyond the scale stays at its end. */
export function height(value: number, scale: Scale, top: number, bottom: number): number {
  const share = (value - scale.least) / (scale.most - scale.least)
  return bottom - Math.min(Math.max(share, 0), 1) * (bottom - top)
}

export const valueAtHeight = (y: number, scale: Scale, top: number, bottom: number) =>
  scale.least + ((bottom - y) / (bottom - top)) * (scale.most - scale.least)

export interface Frame {
  xs: [number, number, number]
  top: number
  bottom: number
}
export interface Scales {
  gauge: Scale
  held: Scale
  run: Scale
}

/** The three scales for a ribbon. What is held begins at the empty tank (of air, not far below cut-in); time at cut-in, below
 * it the reserve. */
export function scalesFor(ribbon: Ribbon, units: Record<'pressure' | 'held' | 'duration', Unit>): Scales {
  const run = ribbon.cut_out.run_s ?? 120
  const before = Math.min(ribbon.pre_charge?.run_s ?? 0, 0)
  const held = [ribbon.cut_out, ...ribbon.ghost].map((level) => level.held_m3)
  const least = ribbon.holds === 'air' ? ribbon.cut_in.held_m3 * 0.75 : 0
  return {
    gauge: scaleAround(ribbon.gauge_least_pa, ribbon.gauge_most_pa, units.pressure, 6),
    held: scaleAround(least, Math.max(least + (Math.max(...held) - least) * 1.3, toSi(1, units.held)), units.held, 4),
    run: scaleAround(before * 1.15, Math.max(run * 1.25, 20), units.duration, 4),
  }
}

/** Whether the scales still hold everything, so that they may stay put while a grip is dragged. */
export function stillFits(scales: Scales, ribbon: Ribbon): boolean {
  const levels = [ribbon.cut_out, ribbon.cut_in, ...(ribbon.pre_charge ? [ribbon.pre_charge] : [])]
  return (
    within(scales.gauge, ...levels.map((level) => level.gauge_pa)) &&
    within(scales.held, ribbon.cut_out.held_m3, ribbon.cut_in.held_m3) &&
    within(scales.run, ribbon.cut_out.run_s ?? scales.run.most)
  )
}

/** The heights of one level on the three scales; a level that the pump never reaches goes off the top. */
export function heights(level: Level, scales: Scales, frame: Frame): [number, number, number] {
  const { top, bottom } = frame
  return [
    height(level.gauge_pa, scales.gauge, top, bottom),
    height(level.held_m3, scales.held, top, bottom),
    level.run_s === null || level.run_s === undefined ? top - 14 : height(level.run_s, scales.run, top, bottom),
  ]
}

type Three = [number, number, number]

/** A curve through three heights, level at each scale. */
export function curve(ys: Three, { xs }: Frame, from: 0 | 1 = 0, to: 1 | 2 = 2): string {
  let path = `M${xs[from]} ${ys[from]}`
  for (let at = from; at < to; at++) path += bend(xs[at]!, ys[at]!, xs[at + 1]!, ys[at + 1]!)
  return path
}

function bend(x0: number, y0: number, x1: number, y1: number): string {
  const middle = (x0 + x1) / 2
  return `C${middle} ${y0} ${middle} ${y1} ${x1} ${y1}`
}

/** The area between two curves. */
export function area(upper: Three, lower: Three, frame: Frame, to: 1 | 2 = 2): string {
  const { xs } = frame
  let path = curve(upper, frame, 0, to) + `L${xs[to]} ${lower[to]}`
  for (let at = to; at > 0; at--) path += bend(xs[at]!, lower[at]!, xs[at - 1]!, lower[at - 1]!)
  return path + 'Z'
}

/** Where a label `2 × half` wide goes between two scales: in the middle of the band, or just above it where the band is too
 * thin or too steep to hold it. */
export function labelHeight(
  levels: { cut_out: Three; cut_in: Three },
  { xs }: Frame,
  from: 0 | 1,
  half: number,
): number {
  const at = (ys: Three) => (ys[from]! + ys[from + 1]!) / 2
  const [upper, lower] = [at(levels.cut_out), at(levels.cut_in)]
  const steep = (ys: Three) => (1.5 * Math.abs(ys[from + 1]! - ys[from]!)) / (xs[from + 1]! - xs[from]!)
  const lost = (steep(levels.cut_out) + steep(levels.cut_in)) * half
  return lower - upper > 24 + lost ? (upper + lower) / 2 + 6 : upper - steep(levels.cut_out) * half - 10
}

/** Pushes labels apart, keeping their order (top to bottom) and staying in between the ends. */
export function spread(ys: number[], gap: number, top: number, bottom: number): number[] {
  const order = ys.map((_, at) => at).sort((a, b) => ys[a]! - ys[b]!)
  const placed = [...ys]
  order.forEach((at, rank) => {
    const before = rank === 0 ? top - gap : placed[order[rank - 1]!]!
    placed[at] = Math.max(placed[at]!, before + gap)
  })
  for (let rank = order.length - 1, limit = bottom; rank >= 0; rank--) {
    const at = order[rank]!
    placed[at] = Math.min(placed[at]!, limit)
    limit = placed[at]! - gap
  }
  return placed
}

/** Where a key moves a grip to: by one step, by five, to its limits; undefined for any other key. */
export function keyTarget(
  key: string,
  now: number,
  step: number,
  bounds: { least_gauge_pa: number; most_gauge_pa: number },
): number | undefined {
  const to: Record<string, number> = {
    ArrowUp: now + step,
    ArrowRight: now + step,
    ArrowDown: now - step,
    ArrowLeft: now - step,
    PageUp: now + 5 * step,
    PageDown: now - 5 * step,
    Home: bounds.least_gauge_pa,
    End: bounds.most_gauge_pa,
  }
  return to[key]
}
