import type { Schemas } from '../../api/client'
import { day } from '../../domain/dates'

type Site = Schemas['RoundsOut']['sites'][number]
type NextCheck = Schemas['NextCheckOut']
export interface Row {
  system: Site['systems'][number]
  site: string
  open: string | undefined
  nextCheck: NextCheck | undefined
}
export interface Group {
  id: string
  title: string
  rows: Row[]
}
interface Choice {
  open: Record<string, string>
  nextCheck: Record<string, NextCheck>
  search: string
  by: 'site' | 'date'
}

/** The systems found, by site in the order of what needs a person, or by when they are due. */
export function grouped(sites: Site[], choice: Choice): Group[] {
  const wanted = choice.search.trim().toLowerCase()
  const groups = sites.map((site) => ({
    id: site.id,
    title: site.name,
    rows: site.systems
      .filter((system) => `${site.name} ${system.name}`.toLowerCase().includes(wanted))
      .map((system) => ({
        system,
        site: site.name,
        open: choice.open[system.id],
        nextCheck: choice.nextCheck[system.id],
      })),
  }))
  const there = groups.map((group) => ({
    ...group,
    rows: group.rows.filter((row) => !row.system.retired),
  }))
  const retired = groups.flatMap((group) => group.rows.filter((row) => row.system.retired))
  const shown = choice.by === 'site' ? there : dated(there.flatMap((group) => group.rows))
  return [...shown, { id: 'retired', title: 'Retired', rows: retired }].filter(
    (group) => group.rows.length,
  )
}

const STATES: [string, string][] = [
  ['open', 'Visit left open'],
  ['overdue', 'Overdue'],
  ['soon', 'Due within a month'],
  ['later', 'Later'],
  ['none', 'Never visited'],
]
const stateOf = (row: Row) => (row.open ? 'open' : (row.nextCheck?.state ?? 'none'))
const due = (row: Row) => row.nextCheck?.due_at ?? ''

function dated(rows: Row[]): Group[] {
  return STATES.map(([id, title]) => ({
    id,
    title,
    rows: rows
      .filter((row) => stateOf(row) === id)
      .toSorted((a, b) => due(a).localeCompare(due(b))),
  }))
}

/** When the next check is, in a few words. */
export function dueWords(nextCheck: NextCheck | undefined): string {
  if (!nextCheck?.due_at) return ''
  return nextCheck.state === 'overdue'
    ? `overdue since ${day(nextCheck.due_at)}`
    : `due ${day(nextCheck.due_at)}`
}

/** The switches of the bench, fetched after the systems. It stands here because the router takes a component whose text holds
 * such an import for an import itself. */
export const switches = () => import('../bench/Switches.svelte')
