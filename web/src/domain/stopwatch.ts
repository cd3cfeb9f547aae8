import { local, setLocal } from '../device/local'

/** The stopwatch of a visit, on this device: since when, and whether the pump runs or rests. It outlives the page. */
export interface Watch {
  running: boolean
  since: number
  /** How long the pump rested before this run, s. */
  rest: number | null
}
const key = (visit: string) => `zerodip.watch.${visit}`

export const readWatch = (visit: string) => local<Watch>(key(visit))
export const holdWatch = (visit: string, watch: Watch | undefined) => setLocal(key(visit), watch)
