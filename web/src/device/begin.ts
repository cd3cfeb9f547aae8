import Dexie from 'dexie'
import { answerHere, askDevice, deviceHere } from './ask'
import { beginCore } from './core'
import { Device, heard, type Told } from './device'
import { localNames, setLocal } from './local'
import { person, setPerson } from './person'
import { Store } from './store'
import { whole } from './whole'

let beginning: Promise<Device | undefined> | undefined

/** Puts the device to work for whoever is signed in; undefined where nothing can be kept here, or nobody is known yet. */
export function beginDevice(reached: boolean): Promise<Device | undefined> {
  beginning ??= begin(reached).catch(() => undefined)
  return beginning
}

async function begin(reached: boolean): Promise<Device | undefined> {
  const core = beginCore()
  core.then(answerHere, () => undefined)
  // Over plain HTTP from another machine a browser keeps nothing that could be trusted: docs/operations.md, TLS.
  if (!isSecureContext || typeof indexedDB === 'undefined') return undefined
  if (typeof CompressionStream === 'undefined' || !navigator.locks) return undefined
  const told = reached ? await asked() : undefined
  const whose = told?.person ?? person()?.id
  if (whose === undefined) return undefined
  const store = new Store(whose)
  await store.open()
  const device = new Device(store, core)
  askDevice(device)
  if (reached) void device.send().then(() => device.take(told))
  void navigator.storage?.persist?.()
  return device
}

/** Who it is that the server knows, and what there is to hold. */
async function asked(): Promise<Told | undefined> {
  const got = await whole('/api/device')
  if (!got?.ok) return undefined
  const told = await heard(got)
  setPerson({ id: told.person, ...told, contact: Date.now(), locked: false })
  return told
}

const HELD_MS = 1000
const KEPT = ['zerodip.theme', 'zerodip.units', 'zerodip.keys', 'zerodip.leaving']

/** Deletes a database; one that another page holds open goes when that lets go of it, and nobody waits for it. */
const gone = (name: string) =>
  Promise.race([
    Dexie.delete(name).catch(() => undefined),
    new Promise((done) => setTimeout(done, HELD_MS)),
  ])

/** Takes everything of whoever was signed in off this device. */
export async function wipe() {
  const device = deviceHere()
  askDevice(undefined)
  beginning = undefined
  device?.close()
  const names = await Dexie.getDatabaseNames().catch(() => [] as string[])
  await Promise.all(names.filter((name) => name.startsWith('zerodip-')).map(gone))
  await globalThis.caches?.delete('zerodip-photos')
  setPerson(undefined)
  const ours = localNames('zerodip.').filter((name) => !KEPT.includes(name))
  for (const name of ours) setLocal(name, undefined)
}
