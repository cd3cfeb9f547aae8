/** What was confirmed on this device and has not reached the server yet. It is written down before it is sent, so that a
 * closed browser, an empty battery or a cellar without signal loses nothing. */
export interface Waiting {
  id: string
  slot: string
  value: unknown
  supersedes: string | null
}
const key = (visit: string) => `zerodip.outbox.${visit}`

export function readOutbox(visit: string): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(key(visit)) ?? '[]') as Waiting[]
  } catch {
    return []
  }
}

export function writeOutbox(visit: string, waiting: Waiting[]) {
  try {
    if (waiting.length) localStorage.setItem(key(visit), JSON.stringify(waiting))
    else localStorage.removeItem(key(visit))
  } catch {
    // No room or not allowed: the page itself still holds it.
  }
}

/** The queue with one more. What still waits for the same slot and corrects the same entry is replaced: pressing a stepper
 * ten times is one reading. What is being sent stays, and is corrected in its turn. */
export function withOne(waiting: Waiting[], next: Waiting, sending: string | undefined): Waiting[] {
  const replaced = waiting.filter((each) => each.slot === next.slot && each.id !== sending)
  const supersedes = replaced[0] ? replaced[0].supersedes : next.supersedes
  return [...waiting.filter((each) => !replaced.includes(each)), { ...next, supersedes }]
}

/** The queue without one; what would have corrected it corrects what it would have corrected. */
export function without(waiting: Waiting[], gone: Waiting, kept: boolean): Waiting[] {
  return waiting
    .filter((each) => each.id !== gone.id)
    .map((each) => (!kept && each.supersedes === gone.id ? { ...each, supersedes: gone.supersedes } : each))
}
