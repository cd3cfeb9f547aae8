import { api, outcome, type Problem, type Schemas } from '../../api/client'

export type Change = Schemas['ChangeIn'] & { id: string }
/** One message of the stream. */
interface Said {
  p?: number
  r?: number
  c?: boolean
  change?: Change
  lost?: string
}
const AGAIN_MS = 1000
const SILENT_MS = 2500
/** Well within the time for which it is read after it was asked for. */
const RENEW_MS = 240_000

/** The reference of a calibration, read off the wire: pressure, how fast it moves, and the contact as they come. */
export class WireState {
  readonly calibration: string
  problem = $state.raw<Problem | undefined>()
  name = $state('')
  /** Pa gauge and Pa/s; undefined while it is lost. */
  now = $state<number | undefined>()
  rate = $state(0)
  closed = $state<boolean | undefined>()
  lost = $state('')
  #onchange: (change: Change) => void
  #stream: EventSource | undefined
  #timers: ReturnType<typeof setInterval>[] = []
  #heard = 0

  constructor(calibration: string, onchange: (change: Change) => void) {
    this.calibration = calibration
    this.#onchange = onchange
  }
  async begin() {
    if (!(await this.#ask())) return
    this.#heard = performance.now()
    this.#listen()
    this.#timers = [
      setInterval(() => void this.#ask(), RENEW_MS),
      setInterval(() => {
        if (performance.now() - this.#heard > SILENT_MS) this.#lose('The server does not answer.')
      }, AGAIN_MS),
    ]
  }
  stop() {
    this.#stream?.close()
    this.#stream = undefined
    this.#timers.forEach(clearInterval)
    this.#timers = []
  }
  async #ask() {
    const params = { path: { calibration_id: this.calibration } }
    const got = await outcome(api.PUT('/api/calibrations/{calibration_id}/watch', { params }))
    this.problem = got.problem
    this.name = got.data?.gauge_name ?? this.name
    return !!got.data
  }
  #listen() {
    const stream = new EventSource(`/api/calibrations/${this.calibration}/stream`)
    this.#stream = stream
    stream.onmessage = (event) => this.#hear(JSON.parse(event.data as string) as Said)
    stream.onerror = () => {
      // The browser goes on by itself, but not after an answer that was no stream.
      if (stream.readyState === EventSource.CLOSED && this.#stream === stream)
        setTimeout(() => void this.#anew(stream), AGAIN_MS)
    }
  }
  async #anew(stream: EventSource) {
    if (this.#stream !== stream) return
    await this.#ask()
    if (this.#stream === stream) this.#listen()
  }
  #hear({ p, r, c, change, lost }: Said) {
    this.#heard = performance.now()
    if (lost !== undefined) this.#lose(lost)
    if (p !== undefined) {
      this.lost = ''
      this.now = p
      this.rate = r ?? 0
      this.closed = c
    }
    if (change) this.#onchange(change)
  }
  #lose(says: string) {
    this.lost = says
    this.now = undefined
  }
}
