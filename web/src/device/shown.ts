import { deviceHere } from './ask'
import { person } from './person'
import type { RefusedWrite, Write } from './store'

/** A write as it waits, or was refused. */
export interface Said {
  id: string
  /** What it is, where it is no record of a visit. */
  what: string
  slot?: string
  value?: unknown
  when: string
  path: string
}
export interface HeldHere {
  days: number
  usage: number
  persistent: boolean
  waiting: Said[]
  refused: (Said & { title: string; detail: string })[]
  forget(): Promise<void>
}

/** What lies on this device, to be looked at. */
export async function heldHere(): Promise<HeldHere | undefined> {
  const device = deviceHere()
  if (!device) return undefined
  const room = await navigator.storage?.estimate?.()
  const refused = await device.store.refused.toArray()
  return {
    days: person()?.days ?? 0,
    usage: room?.usage ?? 0,
    persistent: (await navigator.storage?.persisted?.()) ?? false,
    waiting: (await device.store.writes.where('done').equals(0).toArray()).map(said),
    refused: refused.map((each: RefusedWrite) => ({
      ...said(each),
      title: each.title,
      detail: each.detail,
    })),
    forget: () => device.forgetRefused(),
  }
}

function said({ id, path, body, at }: Write): Said {
  const { slot, value } = (body ?? {}) as Pick<Said, 'slot' | 'value'>
  const what = WHAT.find(([each]) => each.test(path))![1]
  return { id, what, slot, value, when: new Date(at).toLocaleString(), path }
}
const WHAT: [RegExp, string][] = [
  [/\/photos\//, 'a photo'],
  [/\/closed$/, 'closing the visit'],
  [/\/visits\/[^/]+$/, 'a visit begun'],
  [/\/decisions\//, 'settings decided'],
  [/\/retired$/, 'off the rounds or back'],
  [/\/sites\/[^/]+\/systems\//, 'a system begun'],
  [/\/sites\//, 'a site'],
  [/./, 'plates'],
]
