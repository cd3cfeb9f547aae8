import { api, outcome, type Problem, type Schemas } from '../../api/client'
import { preferences } from '../../domain/preferences.svelte'
import { uuid } from '../../domain/uuid'

type Import = Schemas['ImportOut']
type Piece = Schemas['PieceOut']
export type Change = Piece['change']

/** A file on its way in: sent, checked step by step, then taken whole or let go. */
export class ImportState {
  readonly #workspace: string
  at = $state.raw<Import | undefined>()
  pieces = $state.raw<Piece[]>([])
  more = $state(false)
  change = $state<Change | undefined>()
  problem = $state.raw<Problem | undefined>()
  busy = $state(false)
  #stopped = false

  constructor(workspace: string) {
    this.#workspace = workspace
  }

  get mayTake() {
    return (
      this.at?.state === 'ready' &&
      !this.at.counts.refused &&
      !!(this.at.counts.added || this.at.counts.changed)
    )
  }

  async begin(file: File) {
    ;[this.at, this.pieces, this.problem, this.#stopped] = [undefined, [], undefined, false]
    this.busy = true
    const path = { workspace_id: this.#workspace, import_id: uuid() }
    const { data, problem } = await outcome(
      api.PUT('/api/workspaces/{workspace_id}/imports/{import_id}', {
        params: { path, query: { name: file.name } },
        body: file as unknown as Record<string, never>,
        bodySerializer: (body) => body,
        headers: { 'Content-Type': 'application/json' },
      }),
    )
    this.at = data
    this.problem = problem
    await this.#steps('checking')
    this.busy = false
  }
  /** Steps on until the state changes, somebody cancels, or there is no answer. */
  async #steps(while_: Import['state']) {
    while (this.at?.state === while_ && !this.#stopped) {
      const params = { path: { import_id: this.at.id } }
      const { data, problem } = await outcome(api.POST('/api/imports/{import_id}/step', { params }))
      if (this.#stopped) return
      this.problem = problem
      if (problem) return
      this.at = data
    }
    if (this.at && !this.#stopped) await this.show(this.at.counts.refused ? 'refused' : undefined)
  }
  /** Goes on after there was no answer. */
  async goOn() {
    this.busy = true
    if (this.at) await this.#steps(this.at.state)
    this.busy = false
  }
  async show(change: Change | undefined, after = -1) {
    this.change = change
    const params = {
      path: { import_id: this.at!.id },
      query: { units: preferences.units, after, ...(change ? { change } : {}) },
    }
    const { data } = await outcome(api.GET('/api/imports/{import_id}/pieces', { params }))
    const found = data ?? []
    this.pieces = after < 0 ? found : [...this.pieces, ...found]
    this.more = found.length === 100
  }
  async take() {
    this.busy = true
    const params = { path: { import_id: this.at!.id } }
    const { data, problem } = await outcome(api.PUT('/api/imports/{import_id}/taken', { params }))
    this.problem = problem
    if (data) {
      this.at = data
      await this.#steps('taken')
    }
    this.busy = false
  }
  async cancel() {
    this.#stopped = true
    const id = this.at?.id
    ;[this.at, this.pieces] = [undefined, []]
    if (id)
      await outcome(api.DELETE('/api/imports/{import_id}', { params: { path: { import_id: id } } }))
  }
}
