import type { SystemFile } from '../api/client'
import { merged } from './merge'

/** What is on the table and not yet kept, on this device: a closed browser or an empty battery does not lose it. */
const key = (id: string) => `zerodip.draft.${id}`
interface Draft {
  version: number
  file: SystemFile
  base?: SystemFile
}

/** What was not kept yet, on top of the system as it stands now: it may have moved on (a visit puts what it found into the
 * file). None where somebody changed the same values meanwhile. */
export function readDraft(id: string, version: number, now: SystemFile): SystemFile | undefined {
  try {
    const draft = JSON.parse(localStorage.getItem(key(id)) ?? 'null') as Draft | null
    if (!draft || draft.version === version) return draft?.file
    return draft.base && (merged(draft.base, draft.file, now) as SystemFile | undefined)
  } catch {
    return undefined
  }
}

export function writeDraft(id: string, version: number, file: SystemFile, base: SystemFile) {
  try {
    localStorage.setItem(key(id), JSON.stringify({ version, file, base } satisfies Draft))
  } catch {
    // No room or not allowed: the page itself still holds it.
  }
}

export function dropDraft(id: string) {
  try {
    localStorage.removeItem(key(id))
  } catch {
    // Nothing was kept.
  }
}
