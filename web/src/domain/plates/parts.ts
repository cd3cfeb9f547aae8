import type { SystemFile } from '../../api/client'
import { valueAt } from '../file'
import type { Owner } from '../fields'
import type { System } from '../units'

/** What stands on which plate, and what is read on it at a summary. Words only. */
export interface Row {
  owner: Owner
  name: string
  path: string
}
type Blank = Record<string, unknown>
/** A piece of a plate: plain rows; a list of like parts; a part that may be left out; or something with a form of its own. */
export type Section =
  | { kind: 'rows'; rows: Row[] }
  | {
      kind: 'list'
      path: string
      title: string
      owner: Owner
      names: string[]
      least: number
      add: string
      blank: Blank
    }
  | {
      kind: 'part'
      path: string
      title: string
      owner: Owner
      names: string[]
      add: string
      drop: string
      blank: Blank
    }
  | { kind: 'pump' }
  | { kind: 'practice'; names: string[] }

export interface PlateKind {
  id: string
  title: string
  /** Paths whose faults belong to this plate. */
  under: string[]
  sections: (file: SystemFile) => Section[]
  summary: (file: SystemFile, system: System) => string[]
}

export const rows = (owner: Owner, under: string, ...names: string[]): Section => ({
  kind: 'rows',
  rows: names.map((name) => ({ owner, name, path: `${under}.${name}` })),
})

export const kindOf = (file: SystemFile | undefined) => String(valueAt(file, 'system.kind'))
export const modelOf = (file: SystemFile) => String(valueAt(file, 'system.pump.model'))
