import { createStore, delMany, entries, set, type UseStore } from 'idb-keyval'

/** Photos taken and not sent yet, on this device: a cellar has no signal, and a second look at a plate costs a drive. */
export interface Taken {
  id: string
  visit: string
  plate: string
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
