import { local, localNames, setLocal } from './local'

/** Whose device this is: known only after somebody has signed in on it, and forgotten when they sign out. */
export interface Person {
  id: number
  name: string
  /** When the server was last reached, ms since 1970. */
  contact: number
  /** For how many days without contact the device holds what it holds. */
  days: number
  /** The session ended: nothing is shown before signing in again. */
  locked: boolean
}
const KEY = 'zerodip.person'
const DAY = 86_400_000

export const person = () => local<Person>(KEY)
export const setPerson = (one: Person | undefined) => setLocal(KEY, one)
export function lock(locked: boolean) {
  const one = person()
  if (one && one.locked !== locked) setPerson({ ...one, locked })
}
/** Whether too long has passed without contact. */
export const expired = (one: Person, now = Date.now()) => now - one.contact > one.days * DAY

export const PENDING = 'zerodip.leaving'
/** Whether somebody signed out here without a connection, which the server has to hear of. */
export const leaving = () => localNames(PENDING).length > 0
/** Whether the session is more than a question to the server. */
export const mayLeaveOrStay = () => leaving() || person() !== undefined
