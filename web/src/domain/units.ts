import type { Schemas } from '../api/client'
import table from '../api/generated/units.gen'

/** Display and input only: every conversion is by the table that the core writes. */
export type System = 'us' | 'metric' | 'kpa'
/** What an instrument is marked in, for its pressures. */
export type Scale = keyof typeof table.scales
export type Told = System | Scale
export type Dimension = Schemas['Dimension']
export interface Unit {
  id: string
  symbol: string
  factor: number
  offset: number
  decimals: number
  step: number
}

export const SYSTEMS: readonly { id: System; title: string }[] = table.systems
const UNITS: Record<string, Omit<Unit, 'id'>> = table.units

const isScale = (told: Told): told is Scale => told in table.scales

export function unitFor(dimension: Dimension, told: Told): Unit {
  if (!isScale(told)) return unitOf(table.dimensions[dimension][told])
  return dimension === 'pressure' ? unitOf(told) : unitFor(dimension, table.scales[told])
}

/** The scales and how each is written. */
export const SCALES: Record<string, string> = Object.fromEntries(
  (Object.keys(table.scales) as Scale[]).map((scale) => [scale, UNITS[scale]!.symbol]),
)

/** A unit by its id. */
export const unitOf = (id: string): Unit => ({ id, ...UNITS[id]! })

export const fromSi = (value: number, unit: Unit) => (value - unit.offset) / unit.factor
export const toSi = (value: number, unit: Unit) => value * unit.factor + unit.offset

/** A value (in the unit) as it is shown: the unit's fineness, more below ten and below one, no idle zeros. */
export function digits(value: number, unit: Unit): string {
  const size = Math.abs(value)
  if (size >= 1000) return Math.round(value).toLocaleString('en-US')
  const places = Math.max(unit.decimals, size < 1 ? 2 : size < 10 ? 1 : 0)
  const shown = value.toFixed(places)
  const short = places ? shown.replace(/0+$/, '').replace(/\.$/, '') : shown
  return short === '-0' ? '0' : short
}

/** An SI value as number and unit, apart, so that the unit can be set smaller. */
export function parts(
  si: number,
  dimension: Dimension,
  system: Told,
): { number: string; unit: string } {
  const unit = unitFor(dimension, system)
  return { number: digits(fromSi(si, unit), unit), unit: unit.symbol }
}

export function text(si: number, dimension: Dimension, system: Told): string {
  const { number, unit } = parts(si, dimension, system)
  return unit.startsWith('/') ? number + unit : `${number} ${unit}`.trim()
}

/** A chance, by whole percents. */
export const percent = (share: number) => `${Math.round(share * 100)} %`

/** Two pressures as a person says a switch setting: 40/60 psi. */
export const bandText = (low: number, high: number, system: System): string =>
  `${parts(low, 'pressure', system).number}/${text(high, 'pressure', system)}`

/** What a person typed, as a number; null when it is not one. Comma or point; a comma before three digits may mean
 * thousands or thousandths (1,034), and nobody guesses. */
export function parse(typed: string): number | null {
  if (/^[+-]?[1-9]\d{0,2}(,\d{3})+$/.test(typed.trim())) return null
  const plain = typed.trim().replace(',', '.')
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null
}

/** To the nearest whole step of the unit: what a key press or a drag lands on. */
export function snapped(si: number, unit: Unit): number {
  return Math.round(fromSi(si, unit) / unit.step) * unit.step
}
