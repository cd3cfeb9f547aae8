import table from '../api/generated/fields.gen'
import type { Dimension } from './units'

/** A field's title, kind, dimension and options, from the table that the core writes. */
export interface Field {
  kind: 'quantity' | 'choice' | 'flag' | 'marks' | 'words' | 'part' | 'parts'
  title: string
  dimension: Dimension
  options: readonly string[]
  optional: boolean
}
export type Owner = keyof typeof table

const TABLE: Record<Owner, Record<string, Field>> = table

export function fieldOf(owner: Owner, name: string): Field {
  const found = TABLE[owner][name]
  if (!found) throw new Error(`no field ${owner}.${name}`)
  return found
}
