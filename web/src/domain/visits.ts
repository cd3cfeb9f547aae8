import { api, outcome, type Problem, type Schemas } from '../api/client'
import { day } from './dates'
import type { System } from './units'
import { uuid } from './uuid'

/** Opens a visit on a system, or the one already open there; gives its id, or the problem. */
export async function startVisit(system: string): Promise<{ visit?: string; problem?: Problem }> {
  const path = { system_id: system, visit_id: uuid() }
  const { data, problem } = await outcome(
    api.PUT('/api/systems/{system_id}/visits/{visit_id}', { params: { path } }),
  )
  return data ? { visit: data.id } : { problem }
}

/** What was seen, timed or measured on a visit and is not put right. */
export const seenOn = (visit: Schemas['VisitOut'] | undefined): Schemas['Remaining'][] =>
  (visit?.view.handover.remaining ?? []).filter((e) => e.seen && e.verdict !== 'cannot_tell')

/** The same of a system's last visit, and which visit that was in words. Without the server, nothing. */
export async function lastSeen(
  system: string,
  units: System,
): Promise<{ seen: Schemas['Remaining'][]; when: string }> {
  const path = { system_id: system }
  const rows = await outcome(api.GET('/api/systems/{system_id}/visits', { params: { path } }))
  const last = rows.data?.[0]
  if (!last) return { seen: [], when: '' }
  const params = { path: { visit_id: last.id }, query: { units } }
  const { data } = await outcome(api.GET('/api/visits/{visit_id}', { params }))
  return { seen: seenOn(data), when: `the visit of ${day(last.opened_at)}` }
}
