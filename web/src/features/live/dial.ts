import type { Schemas } from '../../api/client'
import { digits, fromSi, toSi, unitFor, type System } from '../../domain/units'

/** The drawing of a dial: half a circle, from nothing on the left to the end of its scale on the right. */
export const WIDE = 820
export const TALL = 430
const [X, Y] = [WIDE / 2, 400]
const STEPS = [1, 2, 5]

export interface Mark {
  pa: number
  /** What is written at it; a mark between two written ones has none. */
  says: string
}

/** Where a pressure lies on the dial at a distance from its middle; beyond the ends it stays at them. */
export function at(pa: number, most: number, radius: number): [number, number] {
  const share = Math.min(Math.max(pa / most, 0), 1)
  const angle = Math.PI * (1 - share)
  return [X + radius * Math.cos(angle), Y - radius * Math.sin(angle)]
}

const point = ([x, y]: [number, number]) => `${x.toFixed(1)} ${y.toFixed(1)}`

/** An arc between two pressures. */
export function arc(from: number, to: number, most: number, radius: number): string {
  return `M${point(at(from, most, radius))}A${radius} ${radius} 0 0 1 ${point(at(to, most, radius))}`
}

/** A line across the rim at a pressure. */
export function across(pa: number, most: number, inner: number, outer: number): string {
  return `M${point(at(pa, most, inner))}L${point(at(pa, most, outer))}`
}

/** The marks of a scale in the units asked for: some five to ten with their figure, four between each two. */
export function marks(most: number, system: System): Mark[] {
  const unit = unitFor('pressure', system)
  const end = fromSi(most, unit)
  const power = 10 ** Math.floor(Math.log10(end / 5))
  const step = power * (STEPS.findLast((each) => each * power * 5 <= end * 1.001) ?? 1)
  const fine = step / 4
  return Array.from({ length: Math.floor(end / fine + 1e-6) + 1 }, (_, k) => ({
    pa: toSi(k * fine, unit),
    says: k % 4 ? '' : digits(k * step * 0.25, unit),
  }))
}

/** The lowest limit that a pressure lies over, if any. */
export function passed(dial: Schemas['Dial'], pa: number | undefined) {
  return pa === undefined ? undefined : dial.limits.find((limit) => pa > limit.gauge_pa)
}
