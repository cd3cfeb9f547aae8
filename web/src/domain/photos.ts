import titles from '../api/generated/photos.gen'
import { api, outcome, type Problem } from '../api/client'
import { reduced } from '../device/small'
import type { PhotoOf, Taken } from '../device/taken'
import { uuid } from './uuid'
import { startVisit } from './visits'

export type { PhotoOf, Taken }

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

const kept = async () => (await import('../device/taken')).kept

/** The photos of a visit that wait. None where the browser keeps nothing. */
export async function taken(visit: string): Promise<Taken[]> {
  try {
    return await (await kept()).filter((photo) => photo.visit === visit).toArray()
  } catch {
    return []
  }
}

export async function keepPhoto(photo: Taken) {
  try {
    await (await kept()).put(photo, photo.id)
  } catch {
    // No room or not allowed: the page itself still holds it.
  }
}

export async function dropPhotos(ids: string[]) {
  try {
    await (await kept()).bulkDelete(ids)
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
