/** What was sent and has no answer yet, by what it is about: on the device until there is one. */
const PREFIX = 'zerodip.unanswered.'

export function kept<T>(about: string): T | undefined {
  try {
    return (JSON.parse(localStorage.getItem(PREFIX + about) ?? 'null') as T | null) ?? undefined
  } catch {
    return undefined
  }
}
export function keep(about: string, sent: object | undefined) {
  try {
    if (sent) localStorage.setItem(PREFIX + about, JSON.stringify(sent))
    else localStorage.removeItem(PREFIX + about)
  } catch {
    // No room or not allowed: the page itself still holds it.
  }
}
/** How much that is: signing out would lose it. */
export function unanswered(): number {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(PREFIX)).length
  } catch {
    return 0
  }
}
