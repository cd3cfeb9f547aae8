import { api, outcome, type Problem, type Schemas } from '../../api/client'
import { Query } from '../../api/query.svelte'
import { session } from '../../api/session.svelte'
import { startVisit } from '../../domain/visits'
import { preferences } from '../../domain/preferences.svelte'
import type { System } from '../../domain/units'

/** One system's sheet: the system as it stands and what happened to it. */
export class SheetState {
  readonly id: string
  system = $state.raw<Schemas['SystemOut'] | undefined>()
  problem = $state.raw<Problem | undefined>()
  readonly #timeline = new Query<Schemas['MomentOut'][]>()

  constructor(id: string) {
    this.id = id
  }

  get moments() {
    return this.#timeline.data ?? []
  }
  /** Whether a visit is open. */
  get running() {
    return this.moments.some((each) => each.open)
  }

  async load() {
    const { data, problem } = await outcome(
      api.GET('/api/systems/{system_id}', { params: this.#params() }),
    )
    if (problem?.status === 401) session.ended()
    // The units first: what the parts of the sheet ask for is told in them.
    if (data) preferences.setUnits(data.site.units)
    this.system = data
    this.problem = problem
  }
  async askTimeline(units: System) {
    const params = { ...this.#params(), query: { units } }
    await this.#timeline.ask(api.GET('/api/systems/{system_id}/timeline', { params }))
  }
  /** The id of the visit opened, or gone on with; nothing where it could not be, with the problem at hand. */
  async visit(): Promise<string | undefined> {
    const started = await startVisit(this.id)
    this.problem = started.problem
    return started.visit
  }
  async retire(retired: boolean) {
    const { data, problem } = await outcome(
      api.PUT('/api/systems/{system_id}/retired', { params: this.#params(), body: { retired } }),
    )
    if (data) this.system = data
    this.problem = problem
  }
  async setUnits(units: System) {
    preferences.setUnits(units)
    const site = this.system?.site.id
    if (!site || !this.system?.may_change) return
    await outcome(
      api.PATCH('/api/sites/{site_id}', { params: { path: { site_id: site } }, body: { units } }),
    )
  }
  #params() {
    return { path: { system_id: this.id } }
  }
}
