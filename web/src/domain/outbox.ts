import type { Schemas } from '../api/client'
import { local, setLocal } from '../device/local'

/** What was confirmed on this device and has not reached the server yet. It is written down before it is sent, so that a
 * closed browser, an empty battery or a cellar without signal loses nothing. */
export interface Waiting {
  id: string
  slot: Schemas['Slot']
  value: unknown
  supersedes: string | null
}
/** A reading of ours for a slot in which somebody else had recorded another value meanwhile. */
export interface Clash {
  slot: Waiting['slot']
  entry: string
  value: unknown
  yours: unknown
  by: string
}

const read = <T>(key: string) => local<T[]>(key) ?? []
const write = (key: string, list: unknown[]) => setLocal(key, list.length ? list : undefined)

export const readOutbox = (visit: string) => read<Waiting>(`zerodip.outbox.${visit}`)
export const writeOutbox = (visit: string, waiting: Waiting[]) =>
  write(`zerodip.outbox.${visit}`, waiting)
export const readClashes = (visit: string) => read<Clash>(`zerodip.clashes.${visit}`)
export const writeClashes = (visit: string, clashes: Clash[]) =>
  write(`zerodip.clashes.${visit}`, clashes)

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
    .map((each) =>
      !kept && each.supersedes === gone.id ? { ...each, supersedes: gone.supersedes } : each,
    )
}
