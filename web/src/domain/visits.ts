import { api, outcome, type Problem } from '../api/client'
import { uuid } from './uuid'

/** Opens a visit on a system, or the one already open there; gives its id, or the problem. */
export async function startVisit(system: string): Promise<{ visit?: string; problem?: Problem }> {
  const path = { system_id: system, visit_id: uuid() }
  const { data, problem } = await outcome(
    api.PUT('/api/systems/{system_id}/visits/{visit_id}', { params: { path } }),
  )
  return data ? { visit: data.id } : { problem }
}
