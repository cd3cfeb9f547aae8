import { local, localNames, setLocal } from '../device/local'

/** What was sent and has no answer yet, by what it is about: on the device until there is one. */
const PREFIX = 'zerodip.unanswered.'

export const kept = <T>(about: string) => local<T>(PREFIX + about)
export const keep = (about: string, sent: object | undefined) => setLocal(PREFIX + about, sent)
/** How much that is: signing out would lose it. */
export const unanswered = () => localNames(PREFIX).length
