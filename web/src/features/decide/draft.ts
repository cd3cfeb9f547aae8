import type { SystemFile } from '../../lib/api/client'

/** What is on the table and not yet kept, on this device: a closed browser or an empty battery does not lose it. */
const key = (id: string) => `zerodip.draft.${id}`

export function readDraft(id: string, version: number): SystemFile | undefined {
  try {
    const draft = JSON.parse(localStorage.getItem(key(id)) ?? 'null') as { version: number; file: SystemFile } | null
    return draft?.version === version ? draft.file : undefined
  } catch {
    return undefined
  }
}

export function writeDraft(id: string, version: number, file: SystemFile) {
  try {
    localStorage.setItem(key(id), JSON.stringify({ version, file }))
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
