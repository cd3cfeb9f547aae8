import { untrack } from 'svelte'
import {
  api,
  outcome,
  type Fault,
  type Outcome,
  parted,
  type Problem,
  type Schemas,
} from '../../api/client'
import { session } from '../../api/session.svelte'
import { person } from '../../device/person'
import { AWAY, STALE } from '../../device/answers'
import { stamp } from '../../domain/dates'
import type { Told } from '../../domain/units'
import { keep, kept } from '../../domain/unanswered'
import { uuid } from '../../domain/uuid'
import type { Change } from './wire.svelte'

type Calibration = Schemas['CalibrationOut']
type Value = Record<string, unknown>
/** What is on its way: an entry, or a change of the contact that the reference on the wire saw. */
interface Sent {
  id: string
  made: string
  /** Whose it is, as the server knows them: nobody else may send it. */
  person: string
  body: { value: Value; supersedes: string | null } | Omit<Change, 'id'>
}
const AGAIN_MS = 3000
const ANSWERS_MS = 15_000
// A wet finger taps twice: the second tap must not record what the next instruction expects.
const TWICE_MS = 600

/** Sends what is entered in a calibration, each once and one after the other: it is kept on the device until the server has
 * answered, and sent again under the same id, so that a torn line neither loses a reading nor makes two of it. */
export class Sending {
  /** What has no answer yet. */
  waiting = $state.raw<Sent | undefined>()
  busy = $state(false)
  faults = $state.raw<Fault[]>([])
  problem = $state.raw<Problem | undefined>()
  #timer: ReturnType<typeof setTimeout> | undefined
  readonly #name: string

  constructor(
    readonly calibration: string,
    readonly units: () => Told,
    readonly ongot: (got: Calibration) => void,
  ) {
    // A session that ends is no other person's.
    this.#name = untrack(() => session.current.name)
    this.waiting = kept<Sent>(this.#key)
    addEventListener('online', this.#now)
  }
  stop() {
    clearTimeout(this.#timer)
    removeEventListener('online', this.#now)
  }
  /** Sends what was kept when the page was last open, if there is anything. */
  begin() {
    return this.waiting ? this.#send(this.waiting) : Promise.resolve()
  }
  add(value: Value, supersedes?: string): Promise<void> {
    return this.#begun(uuid(), { value, supersedes: supersedes ?? null })
  }
  take({ id, ...change }: Change): Promise<void> {
    return this.#begun(id, change)
  }

  get #key() {
    return `${this.calibration}.${this.#name}`
  }
  /** Whether whoever entered it is signed in. */
  get #isSignedIn() {
    return session.current.signed_in && session.current.name === this.#name
  }
  async #begun(id: string, body: Sent['body']) {
    if (this.waiting) return
    this.busy = true
    this.waiting = { id, body, made: stamp(), person: String(person()?.id ?? '') }
    keep(this.#key, this.waiting)
    await this.#send(this.waiting)
    setTimeout(() => (this.busy = false), TWICE_MS)
  }
  async #send(entry: Sent) {
    const got = await this.#put(entry)
    if (this.waiting?.id !== entry.id) return
    ;[this.faults, this.problem] = parted(got.problem)
    if (got.problem && isOpen(got.problem)) {
      if (got.problem.status === 401) session.ended()
      this.#later()
      return
    }
    this.waiting = undefined
    keep(this.#key, undefined)
    if (got.data) this.ongot(got.data)
  }
  #now = () => {
    clearTimeout(this.#timer)
    if (this.waiting && this.#isSignedIn) void this.#send(this.waiting)
    else if (this.waiting) this.#later()
  }
  #later() {
    this.#timer = setTimeout(this.#now, AGAIN_MS)
  }
  #put({ id, body, made, person }: Sent): Promise<Outcome<Calibration>> {
    const path = { calibration_id: this.calibration, calibration_entry_id: id }
    const params = { path, query: { units: this.units() } }
    const headers = {
      'Zerodip-Made': made,
      'Zerodip-Sent': stamp(),
      'Zerodip-Person': person,
    }
    const signal = AbortSignal.timeout(ANSWERS_MS)
    return 'value' in body
      ? outcome(
          api.PUT('/api/calibrations/{calibration_id}/entries/{calibration_entry_id}', {
            ...{ params, body, headers, signal },
          }),
        )
      : outcome(
          api.PUT('/api/calibrations/{calibration_id}/changes/{calibration_entry_id}', {
            ...{ params, body, headers, signal },
          }),
        )
  }
}

/** Whether nobody knows that it arrived, or the person has to sign in first. */
const isOpen = ({ status, title }: Problem) => [0, 401, ...AWAY].includes(status) || title === STALE
