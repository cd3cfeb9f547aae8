import type { SystemFile } from '../api/client'
import { local, setLocal } from '../device/local'
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
    const draft = local<Draft>(key(id))
    if (!draft || draft.version === version) return draft?.file
    return draft.base && (merged(draft.base, draft.file, now) as SystemFile | undefined)
  } catch {
    return undefined
  }
}

export function writeDraft(id: string, version: number, file: SystemFile, base: SystemFile) {
  setLocal(key(id), { version, file, base } satisfies Draft)
}

export const dropDraft = (id: string) => setLocal(key(id), undefined)
