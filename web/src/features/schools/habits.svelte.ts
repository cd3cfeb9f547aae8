import { api, outcome, type Fault, type Problem, type Schemas, type SystemFile } from '../../lib/api/client'
import { shownAt, typedAt, valueAt, withValue } from '../../lib/file'
import { preferences } from '../../lib/preferences.svelte'
import { session } from '../../lib/session.svelte'
import { digits, fromSi, parse, toSi, unitFor, type Dimension } from '../../lib/units'

type Habits = Schemas['HabitsOut']

/** One workspace's practice and list of sizes as edited, until they are kept. */
export class HabitsState {
  habits = $state.raw<Habits>()!
  /** The practice in the shape of a file, so that fields are typed and shown as anywhere else. */
  file = $state.raw<SystemFile>()!
  sizes = $state('')
  faults = $state.raw<Fault[]>([])
  problem = $state.raw<Problem | undefined>()
  kept = $state(false)

  constructor(habits: Habits) {
    this.#take(habits)
  }
  #take(habits: Habits) {
    this.habits = habits
    this.file = { practice: habits.practice, entered: {} } as unknown as SystemFile
    this.sizes = this.#list(habits.sizes_m3)
    this.faults = []
    this.problem = undefined
  }
  #list(volumes: number[] | null | undefined) {
    const unit = unitFor('volume', preferences.units)
    return (volumes ?? []).map((m3) => digits(fromSi(m3, unit), unit).replaceAll(',', '')).join(' ')
  }

  value = (path: string): unknown => valueAt(this.file, path)
  shown = (path: string, dimension: Dimension) => shownAt(this.file, path, dimension, preferences.units)
  faultsAt = (path: string) => this.faults.filter((fault) => fault.path === path)
  type(path: string, text: string, dimension: Dimension) {
    this.file = typedAt(this.file, path, text, dimension, preferences.units)
    this.kept = false
  }
  put(path: string, value: unknown) {
    this.file = withValue(this.file, path, value)
    this.kept = false
  }

  /** The sizes as typed, in SI; what is no number is sent as it is, for the server to name. */
  #sizes(): unknown[] | null {
    const words = this.sizes.split(/[\s;]+/).filter(Boolean)
    const unit = unitFor('volume', preferences.units)
    return words.length ? words.map((word) => (parse(word) === null ? word : toSi(parse(word)!, unit))) : null
  }

  async save() {
    const got = await outcome(
      api.PUT('/api/habits/{workspace_id}', {
        params: { path: { workspace_id: this.habits.workspace }, query: { units: preferences.units } },
        body: {
          version: this.habits.version,
          practice: this.value('practice') as never,
          sizes_m3: this.#sizes() as never,
        },
      }),
    )
    if (got.problem?.status === 401) session.ended()
    if (got.data) this.#take(got.data as Habits)
    this.faults = got.problem?.faults ?? []
    this.problem = got.problem && !got.problem.faults.length ? got.problem : undefined
    this.kept = got.data !== undefined
  }

  /** After somebody else was first: look at what they kept. */
  takeTheirs() {
    const current = this.problem?.current as unknown as Habits | undefined
    if (current) this.#take({ ...this.habits, ...current })
  }
}
