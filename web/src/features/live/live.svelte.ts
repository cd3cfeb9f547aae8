import { api, outcome, type Problem, type Schemas } from '../../api/client'
import { Listening, NO_ANSWER } from '../../api/listening'
import { preferences } from '../../domain/preferences.svelte'
import { uuid } from '../../domain/uuid'

type Watch = Schemas['WatchOut']
type Gauge = Schemas['GaugeOut']
/** One message of the stream. */
interface Said {
  t?: number
  p?: number
  lost?: string
  seen?: boolean
  ended?: boolean
}
const AGAIN_MS = 1000
const LOOK_MS = 5000
/** How long a line is kept for drawing, s. */
export const SHOWN_S = 180
/** Samples further apart than this are a gap, s. */
export const GAP_S = 1.5

/** A gauge on the wire, watched from a visit: the figure as it comes, the line of the last minutes, what it offers. */
export class LiveState {
  readonly visit: string
  gauges = $state.raw<Gauge[]>([])
  watch = $state.raw<Watch | undefined>()
  problem = $state.raw<Problem | undefined>()
  loaded = $state(false)
  /** The pressure now, Pa gauge; undefined while it is lost. */
  now = $state<number | undefined>()
  lost = $state('')
  /** The last minutes, oldest first; a new array with each sample would be dear, so a count tells of them. */
  line: [number, number][] = []
  count = $state(0)
  busy = $state('')
  #listening: Listening<Said> | undefined
  #timers: ReturnType<typeof setInterval>[] = []

  constructor(visit: string) {
    this.visit = visit
  }

  get open() {
    return this.watch?.open === true
  }
  /** By the server's clock, as far as it is known, s. */
  get latest() {
    return this.line.at(-1)?.[0] ?? 0
  }

  async load() {
    const path = { visit_id: this.visit }
    const query = { units: preferences.units }
    const [gauges, watches] = await Promise.all([
      outcome(api.GET('/api/visits/{visit_id}/gauges', { params: { path } })),
      outcome(api.GET('/api/visits/{visit_id}/watches', { params: { path, query } })),
    ])
    this.problem = gauges.problem ?? watches.problem
    this.gauges = (gauges.data ?? []).filter((each) => each.wire)
    this.watch = watches.data?.find((each) => each.open) ?? watches.data?.[0]
    this.loaded = true
    if (this.open) await this.#begin()
  }
  async begin(gauge: string) {
    const params = {
      path: { visit_id: this.visit, watch_id: uuid() },
      query: { units: preferences.units },
    }
    const body = { gauge }
    const got = await outcome(
      api.PUT('/api/visits/{visit_id}/watches/{watch_id}', { params, body }),
    )
    this.problem = got.problem
    if (!got.data) return
    this.stop()
    this.watch = got.data
    this.line = []
    await this.#begin()
  }
  async end() {
    const params = { path: { watch_id: this.watch!.id }, query: { units: preferences.units } }
    const got = await outcome(api.PUT('/api/watches/{watch_id}/ended', { params }))
    this.problem = got.problem
    if (!got.data) return
    this.watch = got.data
    this.stop()
    this.#await()
  }
  /** Until what was watched is a recording. */
  #await() {
    this.#timers = [
      setInterval(() => (this.watch?.recording ? this.stop() : void this.look()), AGAIN_MS),
    ]
  }
  /** What it offers by now. */
  async look() {
    if (!this.watch) return
    const params = { path: { watch_id: this.watch.id }, query: { units: preferences.units } }
    const got = await outcome(api.GET('/api/watches/{watch_id}', { params }))
    if (got.data) this.watch = got.data
  }
  async take({ slot, value, supersedes }: Schemas['Offered']) {
    this.busy = slot
    const params = {
      path: { watch_id: this.watch!.id, entry_id: uuid() },
      query: { units: preferences.units },
    }
    const body = { slot, value, supersedes: supersedes ?? null }
    const got = await outcome(api.PUT('/api/watches/{watch_id}/taken/{entry_id}', { params, body }))
    this.problem = got.problem
    await this.look()
    this.busy = ''
  }
  stop() {
    this.#listening?.stop()
    this.#timers.forEach(clearInterval)
    this.#timers = []
  }

  async #begin() {
    const params = { path: { watch_id: this.watch!.id }, query: { seconds: SHOWN_S } }
    const got = await outcome(api.GET('/api/watches/{watch_id}/line', { params }))
    const before = got.data?.time_s.map((t, k): [number, number] => [t, got.data!.gauge_pa[k]!])
    this.line = before ?? []
    this.count++
    this.#listening = new Listening<Said>(
      `/api/watches/${this.watch!.id}/stream`,
      (said) => this.#hear(said),
      () => this.#lose(NO_ANSWER),
    )
    this.#timers = [setInterval(() => void this.look(), LOOK_MS)]
  }
  #hear({ t, p, lost, seen, ended }: Said) {
    if (lost !== undefined) this.#lose(lost)
    if (seen) void this.look()
    if (ended) {
      this.stop()
      void this.look()
      this.#await()
    }
    if (t === undefined || p === undefined) return
    this.lost = ''
    this.now = p
    this.line.push([t, p])
    while (this.line[0]![0] < t - SHOWN_S) this.line.shift()
    this.count++
  }
  #lose(says: string) {
    this.lost = says
    this.now = undefined
  }
}
