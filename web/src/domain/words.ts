import type { Schemas } from '../api/client'
import slots from '../api/generated/slots.gen'
import { text, type Dimension, type System } from './units'
import { turnWords } from './turns'

type Slot = Schemas['Slot']
interface SlotRow {
  title: string
  dimension: Dimension
  fields: Record<string, Dimension>
}
const SLOTS: Record<Slot, SlotRow> = slots
/** What a record of turns holds beside quantities. */
const TURNS = ['first', 'second']

export const slotTitle = (slot: Slot): string => SLOTS[slot].title

/** A recorded value in words, whatever its slot. */
export function inWords(slot: Slot, value: unknown, units: System): string {
  if (value === null || value === undefined) return 'none'
  if (typeof value === 'number') return text(value, SLOTS[slot].dimension, units)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return `${value.length} readings`
  if (typeof value === 'object')
    return several(SLOTS[slot].fields, new Map(Object.entries(value)), units)
  return String(value)
}

function several(fields: SlotRow['fields'], value: Map<string, unknown>, units: System): string {
  const said = Object.entries(fields).flatMap(([name, dimension]) => {
    const each = value.get(name)
    if (typeof each === 'string') return [each]
    return typeof each === 'number' && dimension !== 'number' ? [text(each, dimension, units)] : []
  })
  const turned = TURNS.flatMap((name) => {
    const turns = value.get(name)
    return typeof turns === 'number' && turns !== 0 ? [`${turnWords(turns)} turn`] : []
  })
  return [said.join(' / '), ...turned].filter(Boolean).join(', ') || 'nothing'
}
