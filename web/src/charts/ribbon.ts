import type { Schemas } from '../api/client'
import { height, within } from './scale'

/** Drawing only: where the server's levels fall on its scales. */
export type Ribbon = Schemas['Ribbon']
export type Level = Schemas['Level']
export type Scales = Schemas['Scales']

export interface Frame {
  xs: [number, number, number]
  top: number
  bottom: number
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
    level.run_s === null || level.run_s === undefined
      ? top - 14
      : height(level.run_s, scales.run, top, bottom),
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
  const steep = (ys: Three) =>
    (1.5 * Math.abs(ys[from + 1]! - ys[from]!)) / (xs[from + 1]! - xs[from]!)
  const lost = (steep(levels.cut_out) + steep(levels.cut_in)) * half
  return lower - upper > 24 + lost
    ? (upper + lower) / 2 + 6
    : upper - steep(levels.cut_out) * half - 10
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
