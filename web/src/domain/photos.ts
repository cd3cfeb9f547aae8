import { createStore, delMany, entries, set, type UseStore } from 'idb-keyval'
import titles from '../api/generated/photos.gen'
import { api, outcome, type Problem } from '../api/client'
import { reduced } from '../device/small'
import { uuid } from './uuid'
import { startVisit } from './visits'

/** What a photo is taken of. */
export type PhotoOf = keyof typeof titles
export const PHOTOS_OF = Object.keys(titles) as PhotoOf[]
/** What a photo is of, within a sentence. */
export function photoTitle(of: PhotoOf): string {
  const title = titles[of]
  return title.charAt(0).toLowerCase() + title.slice(1)
}
const KEPT = [[1280, [0.8, 0.6, 0.45]]] as const
const KEPT_BYTES = 120_000

/** Small enough for a cellar's signal: at most 1280 pixels wide or high, as JPEG, coarser where there is much to see. */
export const smaller = (file: File) => reduced(file, KEPT, KEPT_BYTES)

/** Photos taken and not sent yet, on this device: a cellar has no signal, and a second look at a plate costs a drive. */
export interface Taken {
  id: string
  visit: string
  plate: PhotoOf
  data: Blob
}
let opened: UseStore | undefined
const store = () => (opened ??= createStore('zerodip-photos', 'taken'))

/** The photos of a visit that wait, oldest first. None where the browser keeps nothing. */
export async function taken(visit: string): Promise<Taken[]> {
  try {
    const all = (await entries<string, Taken>(store())).map(([, photo]) => photo)
    return all.filter((photo) => photo.visit === visit)
  } catch {
    return []
  }
}

export async function keepPhoto(photo: Taken) {
  try {
    await set(photo.id, photo, store())
  } catch {
    // No room or not allowed: the page itself still holds it.
  }
}

export async function dropPhotos(ids: string[]) {
  try {
    await delMany(ids, store())
  } catch {
    // It is sent again next time, which changes nothing.
  }
}

export function sendPhoto({ id, visit, plate, data }: Taken) {
  return outcome(
    api.PUT('/api/visits/{visit_id}/photos/{photo_id}', {
      params: { path: { visit_id: visit, photo_id: id }, query: { plate } },
      body: data as unknown as string,
      bodySerializer: (body) => body,
      headers: { 'Content-Type': data.type },
    }),
  )
}

/** Keeps a photo with the visit open on a system, which it opens if there is none. One that finds no
 * signal waits on this device until the visit is opened here; gives why it could not be kept. */
export async function photoOfSystem(
  system: string,
  plate: PhotoOf,
  data: Blob,
): Promise<Problem | undefined> {
  const { visit, problem } = await startVisit(system)
  if (!visit) return problem
  const photo = { id: uuid(), visit, plate, data }
  await keepPhoto(photo)
  const sent = await sendPhoto(photo)
  if (sent.data) await dropPhotos([photo.id])
  return sent.problem
}
