import Dexie, { type Table } from 'dexie'
import type titles from '../api/generated/photos.gen'

/** What a photo is taken of. */
export type PhotoOf = keyof typeof titles
/** A photo taken and not sent yet. */
export interface Taken {
  id: string
  visit: string
  plate: PhotoOf
  data: Blob
}
/** Those photos, on this device: a cellar has no signal, and a second look at a plate costs a drive. */
class Photos extends Dexie {
  taken!: Table<Taken, string>

  constructor() {
    super('zerodip-photos')
    this.version(0.1).stores({ taken: '' }) // what a browser calls 1
  }
}
export const kept = new Photos().taken
