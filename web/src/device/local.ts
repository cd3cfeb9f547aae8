/** A value kept on this device under a name; undefined where there is none, or a browser keeps nothing. */
export function local<T>(name: string): T | undefined {
  try {
    return (JSON.parse(localStorage.getItem(name) ?? 'null') as T | null) ?? undefined
  } catch {
    return undefined
  }
}
/** Keeps a value; undefined takes it away. No room or not allowed: then only the page itself holds it. */
export function setLocal(name: string, value: unknown) {
  try {
    if (value === undefined) localStorage.removeItem(name)
    else localStorage.setItem(name, JSON.stringify(value))
  } catch {
    // Nothing is kept.
  }
}
/** The names of what is kept that begin so. */
export function localNames(start: string): string[] {
  try {
    return Object.keys(localStorage).filter((name) => name.startsWith(start))
  } catch {
    return []
  }
}
