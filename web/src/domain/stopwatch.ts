/** The stopwatch of a visit, on this device: since when, and whether the pump runs or rests. It outlives the page. */
export interface Watch {
  running: boolean
  since: number
  /** How long the pump rested before this run, s. */
  rest: number | null
}
const key = (visit: string) => `zerodip.watch.${visit}`

export function readWatch(visit: string): Watch | undefined {
  try {
    return (JSON.parse(localStorage.getItem(key(visit)) ?? 'null') as Watch | null) ?? undefined
  } catch {
    return undefined
  }
}

export function holdWatch(visit: string, watch: Watch | undefined) {
  try {
    if (watch) localStorage.setItem(key(visit), JSON.stringify(watch))
    else localStorage.removeItem(key(visit))
  } catch {
    // No room or not allowed: it runs on as long as the page is open.
  }
}
