import table from '../api/generated/fields.gen.json'
import type { Dimension } from './units'

/** A field's title, kind, dimension and options, from the table that the core writes. */
export interface Field {
  kind: 'quantity' | 'choice' | 'flag' | 'words' | 'part' | 'parts'
  title: string
  dimension: Dimension
  options: string[]
  optional: boolean
}
export type Owner = keyof typeof table

export function fieldOf(owner: Owner, name: string): Field {
  const found = (table[owner] as Record<string, unknown>)[name]
  if (!found) throw new Error(`no field ${owner}.${name}`)
  return found as Field
}
