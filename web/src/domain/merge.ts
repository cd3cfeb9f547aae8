/** Three-way merge of plain JSON: what only one side changed is taken from it. Undefined where both changed the same value
 * differently. Lists are one value. */
export function merged(base: unknown, ours: unknown, theirs: unknown): unknown {
  if (same(base, ours) || same(ours, theirs)) return theirs
  if (same(base, theirs)) return ours
  if (!plain(base) || !plain(ours) || !plain(theirs)) return undefined
  const names = new Set([...Object.keys(ours), ...Object.keys(theirs)])
  const pairs = [...names].map(
    (name) =>
      [name, merged(base[name], ours[name], theirs[name]), name in ours, name in theirs] as const,
  )
  if (pairs.some(([, value, here, there]) => value === undefined && here && there)) return undefined
  return Object.fromEntries(pairs.filter(([, value]) => value !== undefined))
}

const plain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

export function same(a: unknown, b: unknown): boolean {
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((each, at) => same(each, b[at]))
  if (!plain(a) || !plain(b)) return a === b
  const names = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...names].every((name) => same(a[name], b[name]))
}
