import {
  api,
  outcome,
  parted,
  type Fault,
  type Problem,
  type Schemas,
  type SystemFile,
} from '../api/client'
import {
  assumedUnder,
  enteredAt,
  shownAt,
  typedAt,
  valueAt,
  withoutNotes,
  withRead,
  withValue,
} from './file'
import { same } from './merge'
import { whatIf } from '../api/whatif'
import { Picture } from './picture.svelte'
import { preferences } from './preferences.svelte'
import { session } from '../api/session.svelte'
import { fromSi, snapped, unitFor, type Dimension, type System } from './units'
import { uuid } from './uuid'
import { dropDraft, readDraft, writeDraft } from './draft'

export type GripId = NonNullable<Schemas['Grip']['takes_along']>
export const GRIPS: GripId[] = ['cut_out', 'cut_in', 'pre_charge']
export type WorkspacePractice = Schemas['PracticeOut']
/** A figure that has just been moved is given this long to rest before it is asked how sure it is, ms. */
const REST = 200
/** How often everything is judged while a grip moves, ms. */
const JUDGED = 300
export const gripPath = (grip: GripId) => `settings.${grip}_gauge_pa`

/** One system on the board: its file as edited, the server's judgement of it, and what is still to be kept. */
export class BoardState {
  readonly id: string
  system = $state.raw<Schemas['SystemOut'] | undefined>()
  file = $state.raw<SystemFile | undefined>()
  result = $state.raw<Schemas['DecideOut'] | undefined>()
  /** How sure the results are, told once nothing moves any more; then findings tell what helps, too. */
  certainty = $state.raw<Schemas['Certainty'] | undefined>()
  faults = $state.raw<Fault[]>([])
  problem = $state.raw<Problem | undefined>()
  conflict = $state.raw<Problem | undefined>()
  practice = $state.raw<WorkspacePractice | undefined>()
  draw = $state<number | null>(null)
  /** Why the grip being moved goes no further; empty when it is free. */
  held = $state('')
  /** What was taken from a proposal, in words, until something is changed on it. */
  taken = $state('')
  saving = $state(false)
  restored = $state(false)
  #asking = false
  #again = false
  #picture = new Picture()
  #soon: ReturnType<typeof setTimeout> | undefined
  #rest: ReturnType<typeof setTimeout> | undefined
  #decision = ''

  constructor(id: string) {
    this.id = id
  }

  /** The chart of this kind of system, with its grips. */
  get chart() {
    return this.#picture.chart ?? this.result?.decision.chart
  }
  get ribbon() {
    return this.chart?.type === 'ribbon' ? this.chart : undefined
  }
  get window() {
    return this.chart?.type === 'window' ? this.chart : undefined
  }
  get grips(): GripId[] {
    const has = this.chart?.grips ?? {}
    return GRIPS.filter((grip) => has[grip])
  }
  get dirty() {
    return this.file !== this.system?.document
  }
  /** Whether there is anything to keep: a change, or a system on which nothing was decided yet. */
  get open() {
    return this.dirty || this.system?.decisions.length === 0
  }
  get stale() {
    return this.faults.length > 0 || this.problem !== undefined
  }

  async load() {
    const { data, problem } = await this.#call(
      api.GET('/api/systems/{system_id}', { params: this.#params() }),
    )
    this.problem = problem
    if (!data) return
    this.#take(data)
    preferences.setUnits(data.site.units)
    const draft = readDraft(this.id, data.version, data.document)
    if (draft) this.file = draft
    this.restored = draft !== undefined
    await this.ask()
    void this.#practice(data.workspace)
  }

  async #practice(workspace: string) {
    const { data } = await this.#call(api.GET('/api/practices'))
    this.practice = data?.find((practice) => practice.workspace === workspace)
  }

  /** Asks the server what the file as it stands would do. While one answer is under way, only the latest state waits. */
  async ask() {
    if (this.#asking) {
      this.#again = true
      return
    }
    this.#asking = true
    do {
      this.#again = false
      await this.#askOnce()
    } while (this.#again)
    this.#asking = false
    clearTimeout(this.#rest)
    if (!this.certainty && !this.stale) this.#rest = setTimeout(() => void this.#askSure(), REST)
  }

  async #askSure() {
    const [document, units] = [this.file, preferences.units]
    if (!document) return
    const params = { query: { units } }
    const { data } = await this.#call(
      api.POST('/api/decide', { body: { document, sure: true }, params }),
    )
    if (!data || !this.result || this.file !== document || preferences.units !== units) return
    const { certainty, findings, verdict } = data.decision
    this.certainty = certainty ?? undefined
    const decision = { ...this.result.decision, findings, verdict }
    this.result = { ...this.result, decision }
  }

  async #askOnce() {
    if (!this.file) return
    const [document, { units }] = [this.file, preferences]
    const body = { document, draw_m3_s: this.draw, sure: false }
    const { data, problem } = await whatIf('decide', body, units, () =>
      api.POST('/api/decide', { body, params: { query: { units } } }),
    )
    if (problem?.status === 401) session.ended()
    if (data) this.result = data
    if (this.file === document) this.#picture.drop()
    ;[this.faults, this.problem] = parted(problem)
  }

  /** Puts a changed file on the board: kept on this device at once, then judged. */
  change(file: SystemFile, moving = false) {
    this.file = file
    this.taken = ''
    this.certainty = undefined
    this.#decision = ''
    if (moving && this.#picture.draw(file, preferences.units)) return this.#askSoon()
    this.#keepDraft()
    void this.ask()
  }
  #keepDraft() {
    const system = this.system
    if (system && this.file) writeDraft(this.id, system.version, this.file, system.document)
  }
  /** While a grip moves, the picture goes ahead and everything else is judged a few times a second. */
  #askSoon() {
    if (this.#soon !== undefined) return
    this.#soon = setTimeout(() => {
      this.#soon = undefined
      this.#keepDraft()
      void this.ask()
    }, JUDGED)
  }

  type(path: string, text: string, dimension: Dimension) {
    if (this.file) this.change(typedAt(this.file, path, text, dimension, preferences.units))
  }
  put(path: string, value: unknown) {
    if (this.file) this.change(withValue(withoutNotes(this.file, path), path, value))
  }
  /** What stands at a path is as it is on the plate. */
  confirm(path: string) {
    if (this.file) this.change(withRead(this.file, path))
  }
  /** How many usual values stand at these paths and below. */
  usualUnder(...paths: string[]): number {
    return this.file ? paths.flatMap((path) => assumedUnder(this.file!, path)).length : 0
  }
  shown(path: string, dimension: Dimension): string {
    return this.file ? shownAt(this.file, path, dimension, preferences.units) : ''
  }
  entered(path: string) {
    return this.file && enteredAt(this.file, path)
  }
  value(path: string): unknown {
    return valueAt(this.file, path)
  }
  faultsAt(path: string): Fault[] {
    return this.faults.filter((fault) => fault.path === path || fault.path === `entered.${path}`)
  }
  faultsUnder(...paths: string[]): Fault[] {
    return this.faults.filter((fault) =>
      paths.some((path) => fault.path === path || fault.path.startsWith(path + '.')),
    )
  }

  /** Moves a grip to a gauge pressure, in whole steps of the unit, no further than the server's limits for it. What the
   * server says goes along (with one screw, cut-in) moves by as much. */
  move(grip: GripId, pa: number) {
    const bounds = this.chart?.grips[grip]
    if (!bounds || !this.file) return
    const unit = unitFor('pressure', preferences.units)
    const [least, most] = [fromSi(bounds.least_gauge_pa, unit), fromSi(bounds.most_gauge_pa, unit)]
    const wanted = snapped(pa, unit)
    const inside = Math.min(Math.max(wanted, Math.ceil(least / unit.step - 1e-6) * unit.step), most)
    const landed = inside < wanted ? Math.floor(most / unit.step + 1e-6) * unit.step : inside
    this.held = landed < wanted ? bounds.most_reason : landed > wanted ? bounds.least_reason : ''
    const text = String(Number(landed.toFixed(3)))
    if (text === this.shown(gripPath(grip), 'pressure')) return
    const before = this.value(gripPath(grip))
    let file = typedAt(this.file, gripPath(grip), text, 'pressure', preferences.units)
    const along = bounds.takes_along && gripPath(bounds.takes_along)
    const other = along ? this.value(along) : undefined
    if (along && typeof before === 'number' && typeof other === 'number') {
      const moved = other + Number(valueAt(file, gripPath(grip))) - before
      file = withValue(withoutNotes(file, along), along, moved)
    }
    this.change(file, true)
  }

  /** Takes settings: proposed ones (`said` in words until they are saved or changed), or those found. Where all tanks are
   * charged alike, none keeps a pre-charge of its own. */
  take(option: Schemas['Settings'], said = '', alike = false) {
    let file = withoutNotes(this.file!, 'settings')
    const tanks = valueAt(file, 'system.tanks')
    for (const [at, tank] of (alike && Array.isArray(tanks) ? tanks : []).entries())
      if (tank.pre_charge_gauge_pa != null) {
        const path = `system.tanks.${at}.pre_charge_gauge_pa`
        file = withValue(withoutNotes(file, path), path, null)
      }
    const { cut_in_gauge_pa, cut_out_gauge_pa, pre_charge_gauge_pa, air_renewed } = option
    const settings = {
      cut_in_gauge_pa,
      cut_out_gauge_pa,
      pre_charge_gauge_pa,
      air_renewed: air_renewed || null,
    }
    file = withValue(file, 'settings', settings)
    this.held = ''
    this.change(file)
    this.taken = said
  }

  drawAt(draw: number | null) {
    this.draw = draw
    void this.ask()
  }

  async setUnits(units: System) {
    preferences.setUnits(units)
    this.certainty = undefined
    this.held = ''
    void this.ask()
    if (this.system?.may_change) {
      await this.#call(
        api.PATCH('/api/sites/{site_id}', {
          params: { path: { site_id: this.system.site.id } },
          body: { units },
        }),
      )
    }
  }

  /** Keeps the settings. The decision's id stays the same until something changes, so that trying again is safe. */
  async save() {
    if (!this.file || !this.system?.may_change || this.saving || !this.open) return
    this.saving = true
    this.#decision ||= uuid()
    // What is kept is decided on, and no usual value any more.
    const sent = withRead(this.file, 'settings')
    this.file = sent
    const { data, problem } = await this.#call(
      api.PUT('/api/systems/{system_id}/decisions/{decision_id}', {
        params: {
          path: { system_id: this.id, decision_id: this.#decision },
          query: { units: preferences.units },
        },
        body: { version: this.system.version, document: sent },
      }),
    )
    this.saving = false
    if (data) this.#kept(sent, data)
    else if (problem?.status === 409) this.conflict = problem
    else if (problem?.faults.length) this.faults = problem.faults
    else this.problem = problem
  }

  /** Keeps plates as they are read on site, without a decision: only while no settings are on the board. Where a visit put
   * what it found into the file meanwhile, ours goes on top of that. */
  async keepPlates(again = true): Promise<void> {
    const system = this.system
    if (!this.file || !system?.may_change || !this.dirty || this.faults.length) return
    if (!same(this.file.settings, system.document.settings)) return
    const sent = this.file
    const body = { version: system.version, document: sent }
    const params = { ...this.#params(), query: { units: preferences.units } }
    const { data, problem } = await this.#call(
      api.PUT('/api/systems/{system_id}', { params, body }),
    )
    if (data) {
      this.#take(data)
      dropDraft(this.id)
    } else if (problem?.status === 409 && again) {
      await this.load()
      await this.keepPlates(false)
    } else if (problem?.faults.length) this.faults = problem.faults
    else this.problem = problem
  }

  #kept(sent: SystemFile, decision: Schemas['DecisionOut']) {
    const system = this.system!
    const decisions = [decision, ...system.decisions]
    this.system = { ...system, version: system.version + 1, document: sent, decisions }
    this.#decision = ''
    this.problem = this.conflict = undefined
    this.restored = false
    if (this.file === sent) dropDraft(this.id)
    else writeDraft(this.id, this.system.version, this.file!, this.system.document)
  }

  /** After somebody else was first: take what they stored, or put ours over it. */
  async settle(ours: boolean) {
    const current = this.conflict?.current as
      { version: number; document: SystemFile } | null | undefined
    this.conflict = undefined
    if (!current || !this.system) return
    this.system = { ...this.system, version: current.version, document: current.document }
    if (ours) await this.save()
    else this.putBack()
  }

  putBack() {
    if (!this.system) return
    this.file = this.system.document
    this.certainty = undefined
    this.restored = false
    this.held = ''
    dropDraft(this.id)
    void this.ask()
  }

  #take(system: Schemas['SystemOut']) {
    this.system = system
    this.file = system.document
    this.certainty = undefined
  }
  #params() {
    return { path: { system_id: this.id } }
  }
  async #call<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>) {
    const got = await outcome(call)
    if (got.problem?.status === 401) session.ended()
    return got
  }
}
