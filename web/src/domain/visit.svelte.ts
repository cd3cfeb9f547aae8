import { api, outcome, type Fault, type Problem, type Schemas } from '../api/client'
import { deviceHere } from '../device/ask'
import { preferences } from './preferences.svelte'
import { session } from '../api/session.svelte'
import type { System } from './units'
import { uuid } from './uuid'
import { dropPhotos, keepPhoto, sendPhoto, taken, type PhotoOf, type Taken } from './photos'
import { standing } from './confirmations'
import {
  readClashes,
  readOutbox,
  without,
  withOne,
  writeClashes,
  writeOutbox,
  type Clash,
  type Waiting,
} from './outbox'

export const STEPS = ['watch', 'safe', 'read', 'decide', 'set', 'prove', 'hand_over'] as const
export type Step = (typeof STEPS)[number]
export type Order = 'together' | 'first'
/** What a record is about; a series, or a slot with one value. */
export type Slot = Schemas['Slot']
/** How long a figure may still change under the thumb before it is sent; it is kept on the device at once. */
const SETTLES_MS = 700
const RETRY_MS = 5000

/** One visit: what its steps show, what waits to be sent, and where somebody else was first. */
export class VisitState {
  readonly id: string
  visit = $state.raw<Schemas['VisitOut'] | undefined>()
  problem = $state.raw<Problem | undefined>()
  faults = $state.raw<(Fault & { slot: string })[]>([])
  /** What was typed and refused, by slot: shown until it is corrected. */
  refused = $state.raw<Record<string, unknown>>({})
  /** Where somebody else was first, oldest first; kept on the device until each is settled. */
  clashes = $state.raw<Clash[]>([])
  waiting = $state.raw<Waiting[]>([])
  offline = $state(false)
  step = $state<Step>('watch')
  order = $state<Order>('together')
  /** Turn again rather than watch first; until the next look. */
  eager = $state(false)
  /** Photos not sent yet. */
  photos = $state.raw<Taken[]>([])
  #photographing = false
  #sending: Promise<void> | undefined
  #underWay: string | undefined
  /** What the steps show is older than the records. */
  #behind = false
  #later: ReturnType<typeof setTimeout> | undefined
  /** Questions are counted: what was sent or asked since makes an answer old. */
  #asked = 0

  constructor(id: string) {
    this.id = id
    this.waiting = readOutbox(id)
    this.clashes = readClashes(id)
  }

  get view() {
    return this.visit?.view
  }
  get open() {
    return this.visit?.open === true && this.visit.may_change
  }
  /** What is confirmed and how power stands, what waits included. */
  get standing() {
    return standing(this.visit!.view, this.waiting)
  }
  done(step: string): boolean {
    return this.standing.done.has(step)
  }

  async load() {
    while (this.#sending) await this.#sending
    const number = ++this.#asked
    const path = { visit_id: this.id }
    const got = await outcome(
      api.GET('/api/visits/{visit_id}', { params: { path, query: this.#query() } }),
    )
    if (number !== this.#asked) return
    this.#hear(got.problem)
    this.problem = this.visit && this.offline ? undefined : got.problem
    if (!got.data) return
    const first = this.visit === undefined
    this.visit = got.data
    this.#behind = false
    await this.#late()
    if (first) await this.#begin()
    await this.flush()
  }
  /** Clashes that came up when this device sent what had waited. */
  async #late() {
    const late = (await deviceHere()?.clashesOf(this.id)) as Clash[] | undefined
    if (late?.length) this.#clash([...this.clashes, ...late])
  }
  async #begin() {
    this.step = (this.value('place') as Step | undefined) ?? this.visit!.view.place
    const { units } = this.visit!.system.site
    if (units !== preferences.units) {
      preferences.setUnits(units)
      await this.load() // what it says was asked for in other units
    }
    this.photos = await taken(this.id)
    void this.sendPhotos()
  }
  /** Tries again what could not be sent; else looks whether somebody else went on. */
  async look() {
    if (!this.visit || this.#sending) return
    if (this.photos.length) await this.sendPhotos()
    await (this.waiting.length ? this.flush() : this.load())
  }
  #query() {
    return { units: preferences.units, order: this.order, eager: this.eager }
  }
  #hear(problem: Problem | undefined) {
    this.offline = problem !== undefined && (problem.status === 0 || problem.status >= 500)
    if (problem?.status === 401) session.ended()
  }

  /** Goes to a step, and remembers it for whoever opens the visit again. */
  go(step: Step) {
    this.step = step
    if (this.open) this.put('place', step)
  }
  /** Adds one record to a series, or corrects one. */
  add(slot: Slot, value: unknown, supersedes: string | null = null) {
    if (slot === 'try') this.eager = false
    this.#clear(slot)
    this.#keep([...this.waiting, { id: uuid(), slot, value, supersedes }])
    return this.flush()
  }
  /** Confirms something to see to, wherever it is recorded. */
  check(slot: Slot, done: boolean) {
    return slot.startsWith('safe.') ? this.add(slot, done) : this.put(slot, done)
  }
  /** Sets a slot with one value, correcting what stands there. Sent at once, or when it has settled. */
  put(slot: Slot, value: unknown, settled = true) {
    this.#clear(slot)
    const last =
      this.waiting.findLast((each) => each.slot === slot)?.id ?? this.#entry(slot)?.id ?? null
    this.#keep(withOne(this.waiting, { id: uuid(), slot, value, supersedes: last }, this.#underWay))
    if (settled) return this.flush()
    clearTimeout(this.#later)
    this.#later = setTimeout(() => void this.flush(), SETTLES_MS)
    return Promise.resolve()
  }
  #clear(slot: string) {
    this.faults = this.faults.filter((fault) => fault.slot !== slot)
    if (slot in this.refused)
      this.refused = Object.fromEntries(Object.entries(this.refused).filter(([at]) => at !== slot))
  }
  #keep(waiting: Waiting[]) {
    this.waiting = waiting
    writeOutbox(this.id, waiting)
  }

  /** Sends what waits, oldest first, one after the other. */
  flush(): Promise<void> {
    clearTimeout(this.#later)
    this.#later = undefined
    this.#sending ??= this.#sendAll()
      .finally(() => (this.#sending = this.#underWay = undefined))
      .then(() => (this.#behind && !this.waiting.length ? this.load() : undefined))
    return this.#sending
  }
  async #sendAll() {
    while (this.waiting.length) {
      const next = this.waiting[0]!
      this.#underWay = next.id
      const end = await this.#send(next)
      if (end === 'later') return
      this.#keep(without(this.waiting, next, end === 'kept'))
    }
  }
  async #send({ id, slot, value, supersedes }: Waiting): Promise<'kept' | 'refused' | 'later'> {
    this.#asked++
    // What stands confirmed is told by the server's view: readings alone may be ahead of it.
    const more = slot.startsWith('found.') && this.waiting.length > 1
    const query = { ...this.#query(), more }
    const params = { path: { visit_id: this.id, entry_id: id }, query }
    const body = { slot, value, supersedes }
    const { data, problem } = await outcome(
      api.PUT('/api/visits/{visit_id}/entries/{entry_id}', { params, body }),
    )
    this.#hear(problem)
    if (!problem) {
      this.#behind = data === undefined
      this.visit = data ?? this.#with({ id, slot, value, supersedes })
      this.problem = undefined
      return 'kept'
    }
    if (this.offline) this.#later = setTimeout(() => void this.flush(), RETRY_MS)
    if (this.offline || problem.status === 401) return 'later'
    this.#refuse(slot, value, problem)
    return 'refused'
  }
  /** The visit with a record of which the server told no more than that it has it. */
  #with(entry: Waiting): Schemas['VisitOut'] {
    const entries = [...this.visit!.entries, { ...entry, at: '', by: '', by_gauge: '' }]
    return { ...this.visit!, entries }
  }
  #refuse(slot: Slot, value: unknown, problem: Problem) {
    const { entry, value: stored, by } = problem.current ?? {}
    if (problem.status === 409 && typeof entry === 'string')
      this.#clash([
        ...this.clashes,
        { slot, entry, value: stored, yours: value, by: String(by ?? '') },
      ])
    else if (problem.faults.length) {
      this.faults = [...this.faults, ...problem.faults.map((fault) => ({ ...fault, slot }))]
      this.refused = { ...this.refused, [slot]: value }
    } else this.problem = problem
  }

  /** After somebody else was first: theirs stays, or ours corrects it. */
  async settle(clash: Clash, ours: boolean) {
    this.#clash(this.clashes.filter((each) => each !== clash))
    if (ours) await this.add(clash.slot, clash.yours, clash.entry)
    else await this.load()
  }
  #clash(clashes: Clash[]) {
    this.clashes = clashes
    writeClashes(this.id, clashes)
  }

  /** The value of a slot: as refused, as waiting, as kept. */
  value(slot: Slot): unknown {
    if (slot in this.refused) return this.refused[slot]
    const waiting = this.waiting.findLast((each) => each.slot === slot)
    return waiting ? waiting.value : this.#entry(slot)?.value
  }
  #entry(slot: string) {
    return this.visit?.entries.findLast((entry) => entry.slot === slot)
  }
  /** The entries of a series in force, what waits included, oldest first. */
  series(slot: string): { id: string; value: unknown }[] {
    const kept = this.visit?.entries ?? []
    const waiting = this.waiting.filter((each) => !kept.some((entry) => entry.id === each.id))
    const all = [...kept, ...waiting].filter((entry) => entry.slot === slot)
    const corrected = all.map((entry) => entry.supersedes)
    return all.filter((entry) => !corrected.includes(entry.id))
  }
  waits(slot: string): boolean {
    return this.waiting.some((each) => each.slot === slot)
  }
  faultsAt(slot: string) {
    return this.faults.filter((fault) => fault.slot === slot)
  }

  /** Closes the visit for good, once everything that waits is on record. */
  async close() {
    await this.sendPhotos()
    await this.flush()
    if (this.waiting.length || this.photos.length) return
    this.#asked++
    const params = { path: { visit_id: this.id }, query: { units: preferences.units } }
    const { data, problem } = await outcome(api.PUT('/api/visits/{visit_id}/closed', { params }))
    this.#hear(problem)
    if (data) this.visit = data
    this.problem = problem
  }
  async setUnits(units: System) {
    preferences.setUnits(units)
    await this.load()
    const site = this.visit?.system.site.id
    if (site && this.visit?.may_change)
      await outcome(
        api.PATCH('/api/sites/{site_id}', { params: { path: { site_id: site } }, body: { units } }),
      )
  }
  setOrder(order: Order, eager = false) {
    this.order = order
    this.eager = eager
    void this.load()
  }
  /** Adds a photo to a plate: on this device first, then to the server. */
  async photo(plate: PhotoOf, data: Blob) {
    const photo = { id: uuid(), visit: this.id, plate, data }
    await keepPhoto(photo)
    this.photos = [...this.photos, photo]
    await this.sendPhotos()
  }
  /** Sends the photos that wait. One that is refused for good is let go, with the reason. */
  async sendPhotos() {
    if (this.#photographing) return
    this.#photographing = true
    for (const photo of this.photos) {
      const { problem } = await sendPhoto(photo)
      this.#hear(problem)
      if (this.offline || problem?.status === 401) break
      if (problem)
        this.problem = {
          ...problem,
          title: 'The photo was not taken',
          detail: problem.faults[0]?.message ?? problem.detail,
        }
      await dropPhotos([photo.id])
      this.photos = this.photos.filter((each) => each.id !== photo.id)
      if (!problem) await this.load()
    }
    this.#photographing = false
  }
}
