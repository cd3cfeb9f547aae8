import {
  api,
  outcome,
  parted,
  type Fault,
  type Problem,
  type Schemas,
  type SystemFile,
} from '../../api/client'
import { preferences } from '../../domain/preferences.svelte'
import type { System } from '../../domain/units'
import { uuid } from '../../domain/uuid'

export const NEW = 'new'
const FIELDS = ['name', 'kind', 'site', 'site.name']

/** A system that is being added. Ids are made once, so that trying again after no answer adds nothing twice. */
export class AddState {
  readonly sites: Schemas['RoundsOut']['sites']
  readonly #workspace: string | undefined
  #siteId = uuid()
  #systemId = uuid()
  /** The site's id, NEW for one to begin; '' before any was chosen. */
  site = $state('')
  siteName = $state('')
  units = $state<System>('us')
  name = $state('')
  kind = $state('well_bladder')
  file = $state.raw<SystemFile | undefined>()
  fileName = $state('')
  faults = $state.raw<Fault[]>([])
  problem = $state.raw<Problem | undefined>()
  sending = $state(false)

  constructor(rounds: Schemas['RoundsOut']) {
    const may = rounds.workspaces
      .filter((workspace) => workspace.may_add)
      .map((workspace) => workspace.id)
    this.#workspace = may[0]
    this.sites = rounds.sites
      .filter((site) => may.includes(site.workspace))
      .toSorted((a, b) => a.name.localeCompare(b.name))
    if (!this.sites.length) this.site = NEW
    this.units = preferences.units
  }

  /** Faults that belong to no field of the form: those of a file. */
  get others() {
    return this.faults.filter((fault) => !FIELDS.includes(fault.path))
  }

  async take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0]
    event.currentTarget.value = ''
    if (!file) return
    this.faults = []
    try {
      this.file = JSON.parse(await file.text()) as SystemFile
      this.fileName = file.name
      this.problem = undefined
    } catch (error) {
      const detail = error instanceof Error ? error.message : ''
      this.problem = { title: `${file.name} is no JSON file`, status: 0, detail, faults: [] }
    }
  }

  /** The id of the system made, or nothing, with the reasons at hand. */
  async send(): Promise<string | undefined> {
    this.sending = true
    this.faults = []
    this.problem = undefined
    const made = await this.#send()
    this.sending = false
    return made
  }
  async #send() {
    if (!this.site) {
      this.faults = [{ path: 'site', code: 'missing', message: 'Site is missing.', allowed: '' }]
      return
    }
    const site = this.site === NEW ? await this.#newSite() : this.site
    if (!site) return
    const body = this.file ? { document: this.file } : { name: this.name, kind: this.kind }
    const params = {
      path: { site_id: site, system_id: this.#systemId },
      query: { units: preferences.units },
    }
    const { data, problem } = await outcome(
      api.PUT('/api/sites/{site_id}/systems/{system_id}', { params, body: { name: '', ...body } }),
    )
    if (problem) this.#refused(problem)
    return data?.id
  }
  async #newSite() {
    if (!this.#workspace) return
    const params = { path: { workspace_id: this.#workspace, site_id: this.#siteId } }
    const body = { name: this.siteName, units: this.units }
    const { data, problem } = await outcome(
      api.PUT('/api/workspaces/{workspace_id}/sites/{site_id}', { params, body }),
    )
    if (problem)
      this.#refused({
        ...problem,
        faults: problem.faults.map((fault) => ({ ...fault, path: `site.${fault.path}` })),
      })
    return data?.id
  }
  #refused(problem: Problem) {
    ;[this.faults, this.problem] = parted(problem)
  }
}
