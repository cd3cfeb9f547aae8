import {
  digits,
  fromSi,
  parse,
  toSi,
  unitFor,
  unitOf,
  type Dimension,
  type Told,
  type Unit,
} from './units'

/** A quantity as a person enters it: the value (SI; the text itself where it is no number, to be refused by name; null
 * where there is none), the text as typed and the unit it was typed in. */
export interface Quantity {
  value: number | string | null
  text: string
  unit: string
}
/** What was typed, where it is known. */
export type Entered = Pick<Quantity, 'text' | 'unit'>

/** What a text means when it is typed in a unit system. */
export function typed(text: string, dimension: Dimension, system: Told): Quantity {
  const unit = unitFor(dimension, system)
  const number = parse(text)
  const value = number === null ? text.trim() || null : toSi(number, unit)
  return { value, text, unit: unit.id }
}

/** The text of a value for its box, such that typing it again gives that value: as typed where it was typed in this unit,
 * else converted, without marks between thousands. */
export function editable(value: unknown, unit: Unit, entered?: Entered): string {
  if (typeof value === 'string') return value
  if (typeof value !== 'number') return ''
  if (entered?.unit === unit.id) return entered.text
  const converted = fromSi(value, unit)
  return Math.abs(converted) >= 1000 ? converted.toFixed(0) : digits(converted, unit)
}

const words = (list: string) => list.split(/[\s;]+/).filter(Boolean)

/** A list of quantities as typed; null where nothing is. What is no number stays as it is, to be refused by name. */
export function valuesOf({ text, unit }: Entered): (number | string)[] | null {
  const values = words(text).map((word) =>
    parse(word) === null ? word : toSi(parse(word)!, unitOf(unit)),
  )
  return values.length ? values : null
}

/** The text of a list in a unit: as typed where it was typed in it. */
export function listIn(unit: Unit, entered: Entered): string {
  if (entered.unit === unit.id) return entered.text
  return (valuesOf(entered) ?? []).map((value) => editable(value, unit)).join(' ')
}
