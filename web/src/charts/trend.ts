import type { Schemas } from '../api/client'
import { dateOf } from '../domain/dates'

type Point = Schemas['TrendPoint']
const SIDE = 16
const TOP = 26
const FOOT = 40
/** Points closer than this in time (s) were made on one visit: found, then left. */
const VISIT_S = 86400

/** Where the points of a series lie on the picture, which of them carry a figure, and the years below. */
export function plotted(points: Point[], band: number | null, width: number, tall: number) {
  const values = [...points.map((point) => point.value), ...(band === null ? [] : [band])]
  const [low, high] = spanned(Math.min(...values), Math.max(...values))
  const [first, last] = [points[0]?.at_s ?? 0, points.at(-1)?.at_s ?? 1]
  const y = (value: number) => TOP + ((high - value) / (high - low)) * (tall - TOP - FOOT)
  const x = (s: number) => SIDE + ((s - first) / (last - first || 1)) * (width - 2 * SIDE)
  const placed = points.map((of) => ({ of, x: x(of.at_s), y: y(of.value) }))
  return {
    points: placed,
    line: placed.map(({ x, y }, at) => `${at ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
    band: band === null ? null : y(band),
    labels: labelled(placed, tall),
    years: years(points, x),
  }
}

/** Wide enough that what is steady looks steady: at least a seventh of the figure itself. */
function spanned(low: number, high: number): [number, number] {
  const short = Math.max(Math.abs(high) / 7, 1e-9) - (high - low)
  return short > 0 ? [low - short / 2, high + short / 2] : [low, high]
}

/** The first and the last figure: those between are on the board. */
function labelled(placed: { of: Point; x: number; y: number }[], tall: number) {
  const ends = placed.length > 1 ? [placed[0]!, placed.at(-1)!] : placed
  return ends.map(({ of, x, y }, at) => ({
    value: of.value,
    x,
    // Away from the line: above in the upper half, below in the lower.
    y: y > tall / 2 ? y + 22 : y - 12,
    anchor: at === 0 && placed.length > 1 ? 'start' : placed.length > 1 ? 'end' : 'middle',
  }))
}

function years(points: Point[], x: (s: number) => number) {
  const visits = points.filter(
    (point, at) => at === 0 || point.at_s - points[at - 1]!.at_s > VISIT_S,
  )
  const said = new Map<string, number>()
  for (const point of visits) said.set(String(dateOf(point.at_s).getFullYear()), x(point.at_s))
  return [...said].map(([says, x]) => ({ says, x }))
}
