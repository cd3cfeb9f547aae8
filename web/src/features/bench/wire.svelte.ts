import { api, outcome, type Problem, type Schemas } from '../../api/client'
import { Listening, NO_ANSWER } from '../../api/listening'

export type Change = Schemas['ChangeIn'] & { id: string }
/** One message of the stream. */
interface Said {
  p?: number
  r?: number
  c?: boolean
  change?: Change
  lost?: string
}
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
  #listening: Listening<Said> | undefined
  #timer: ReturnType<typeof setInterval> | undefined

  constructor(calibration: string, onchange: (change: Change) => void) {
    this.calibration = calibration
    this.#onchange = onchange
  }
  async begin() {
    if (!(await this.#ask())) return
    this.#listening = new Listening<Said>(
      `/api/calibrations/${this.calibration}/stream`,
      (said) => this.#hear(said),
      () => this.#lose(NO_ANSWER),
      () => this.#ask(),
    )
    this.#timer = setInterval(() => void this.#ask(), RENEW_MS)
  }
  stop() {
    this.#listening?.stop()
    clearInterval(this.#timer)
  }
  async #ask() {
    const params = { path: { calibration_id: this.calibration } }
    const got = await outcome(api.PUT('/api/calibrations/{calibration_id}/watch', { params }))
    this.problem = got.problem
    this.name = got.data?.gauge_name ?? this.name
    return !!got.data
  }
  #hear({ p, r, c, change, lost }: Said) {
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
