import { api, outcome, type Fault, type Problem, type Schemas } from '../../api/client'
import { Query } from '../../api/query.svelte'
import { preferences } from '../../domain/preferences.svelte'

export type Cycle = Record<string, number | null>
export type Layout = Record<string, unknown> & { columns: Record<string, unknown>[] }
type Guess = { layout: Layout; lines: string[]; doubts: string[] }
type Line = Schemas['LineOut']

const ASK_AGAIN_MS = 700
const SETTLED_MS = 90
const FIRST_S = 3600

/** One recording: how far it is, what it says, and the window of its line that is looked at. */
export class RecordingState {
  readonly id: string
  recording = $state.raw<Schemas['RecordingOut'] | undefined>()
  problem = $state.raw<Problem | undefined>()
  guess = $state.raw<Guess | undefined>()
  faults = $state.raw<Fault[]>([])
  window = $state.raw<[number, number]>([0, 1])
  chosen = $state.raw<Cycle | undefined>()
  predicted = $state.raw<Schemas['PredictedOut'] | undefined>()
  readonly #line = new Query<Line>()
  readonly #cycles = new Query<Schemas['CyclesOut']>()
  #again: ReturnType<typeof setTimeout> | undefined
  #settle: ReturnType<typeof setTimeout> | undefined
  #width = 800
  #left = false

  constructor(id: string) {
    this.id = id
  }

  get line() {
    return this.#line.data
  }
  get cycles() {
    return this.#cycles.data
  }
  get told() {
    return this.recording?.told as Told | null | undefined
  }
  /** The zone by whose clock times are shown; the recorder's own clock stands as it is. */
  get zone() {
    return this.recording?.zone || 'UTC'
  }
  get ends(): [number, number] {
    return [this.recording?.first_s ?? 0, this.recording?.last_s ?? 1]
  }
  get #path() {
    return { path: { recording_id: this.id } }
  }

  async load() {
    this.#left = false
    const before = this.recording?.state
    const { data, problem } = await outcome(
      api.GET('/api/recordings/{recording_id}', {
        params: { ...this.#path, query: { units: preferences.units } },
      }),
    )
    this.problem = problem
    this.recording = data ?? this.recording
    // Also where no answer came: the file is read on, and the page is not to stand still.
    clearTimeout(this.#again)
    if (this.recording?.state === 'reading' && !this.#left)
      this.#again = setTimeout(() => void this.load(), ASK_AGAIN_MS)
    if (!data) return
    if (data.state === 'here' && !this.guess) await this.#askGuess()
    if (data.state === 'read' && before !== 'read') this.look(...this.#first())
  }
  stop() {
    this.#left = true
    clearTimeout(this.#again)
    clearTimeout(this.#settle)
  }

  /** The busiest hour first: there is something to see. */
  #first(): [number, number] {
    const [first, last] = this.ends
    const busy = this.told?.busiest_hour?.[0]
    if (busy === undefined || last - first <= 2 * FIRST_S) return [first, last]
    return [Math.max(busy - 300, first), Math.min(busy + FIRST_S, last)]
  }

  async #askGuess() {
    const { data, problem } = await outcome(
      api.GET('/api/recordings/{recording_id}/guess', { params: this.#path }),
    )
    if (data) this.guess = data as unknown as Guess
    else this.problem = problem
  }
  async read(layout: Layout) {
    const { data, problem } = await outcome(
      api.POST('/api/recordings/{recording_id}/read', {
        params: this.#path,
        body: { layout },
      }),
    )
    this.faults = problem?.faults ?? []
    if (problem && !this.faults.length) this.problem = problem
    if (data) await this.load()
  }
  async remove(): Promise<boolean> {
    const { problem } = await outcome(
      api.DELETE('/api/recordings/{recording_id}', { params: this.#path }),
    )
    this.problem = problem
    return !problem
  }

  setWidth(width: number) {
    this.#width = Math.max(100, Math.round(width))
  }
  /** Looks at a window: what is there already is drawn at once, finer ones are asked for when it has settled. */
  look(from: number, until: number) {
    const [first, last] = this.ends
    const span = Math.min(Math.max(until - from, 5), last - first)
    const start = Math.min(Math.max(from, first), last - span)
    this.window = [start, start + span]
    clearTimeout(this.#settle)
    this.#settle = setTimeout(() => void this.#ask(), SETTLED_MS)
  }
  /** Nearer or further around a place of the window (0 to 1). */
  zoom(by: number, at = 0.5) {
    const [from, until] = this.window
    const span = (until - from) * by
    const middle = from + (until - from) * at
    this.look(middle - span * at, middle + span * (1 - at))
  }
  move(by: number) {
    const [from, until] = this.window
    this.look(from + (until - from) * by, until + (until - from) * by)
  }
  async #ask() {
    const [from_s, until_s] = this.window
    const room = (until_s - from_s) / 2
    const query = { from_s: from_s - room, until_s: until_s + room }
    await Promise.all([
      this.#line.ask(
        api.GET('/api/recordings/{recording_id}/line', {
          params: { ...this.#path, query: { ...query, points: Math.min(this.#width * 2, 4000) } },
        }),
      ),
      this.#cycles.ask(
        api.GET('/api/recordings/{recording_id}/cycles', {
          params: { ...this.#path, query: { from_s, until_s } },
        }),
      ),
    ])
  }

  async choose(cycle: Cycle | undefined) {
    this.chosen = cycle
    this.predicted = undefined
    if (cycle?.start_s == null) return
    const { data } = await outcome(
      api.GET('/api/recordings/{recording_id}/predicted', {
        params: { ...this.#path, query: { start_s: cycle.start_s } },
      }),
    )
    if (this.chosen === cycle && data?.time_s.length) this.predicted = data
  }
}

export interface Within {
  value: number
  least: number
  most: number
}
export interface Figure {
  usual: number
  least: number
  most: number
  cycles: number
}
/** What a recording says (zerodip.recording.told). */
export interface Told {
  says: { id: string; weight: string; title: string; text: string }[]
  faults: { id: string; weight: string; title: string; text: string }[]
  points: { cut_in: Figure | null; cut_out: Figure | null }
  run: Figure | null
  rest: Figure | null
  days: { from_s: number; starts: number[]; run_s: number }[]
  busiest_hour: [number, number] | null
  draws: { start_s: number; seconds: number; starts: number; volume_m3: number | null }[]
  leak: { is_there: boolean; flow_m3_s: number | null; windows: number } | null
  knee: { gauge_pa: number } | null
  empties?: { starts: number; of: number; from_pa: number } | null // not in what was read before it was told
  plates: {
    volume_m3: Within | null
    flow_m3_s: Within | null
    pre_charge_gauge_pa: Within | null
    settles_by: string | null
    settles_all: boolean
    then_pre_charge: Within | null
  } | null
  not_sure: string[]
  recording: { samples: number; step_s: number; gaps: number }
}
