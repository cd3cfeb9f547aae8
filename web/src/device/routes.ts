import writes from '../api/generated/writes.gen'

/** Which requests a device answers or keeps. What they mean is the core's to say. */
const ID = '([0-9a-f-]{36})'
const READS = [
  /^\/api\/(rounds|visits|next-checks|practices|gauges)$/,
  new RegExp(`^/api/systems/${ID}(/(visits|timeline|trends))?$`),
  new RegExp(`^/api/visits/${ID}(/(trends|gauges|report))?$`),
]
const WRITES = Object.entries(writes).map(([path, method]) => ({
  method,
  path: new RegExp(`^${path}$`),
}))

/** The lists whose last answers are kept, as the core names them. */
export const LISTS = { rounds: 'rounds', visits: 'visits', next_checks: 'next-checks' } as const

export const isRead = (method: string, path: string) =>
  method === 'GET' && READS.some((each) => each.test(path))
export const isWrite = (method: string, path: string) =>
  WRITES.some((each) => each.method === method && each.path.test(path))

/** The visit that a path is about, and the system, as far as the path tells. */
export function about(path: string): { system?: string; visit?: string } {
  const begun = new RegExp(`^/api/sites/${ID}/systems/${ID}$`).exec(path)
  if (begun) return { system: begun[2] }
  const system = new RegExp(`^/api/systems/${ID}(?:/visits/${ID})?`).exec(path)
  if (system) return { system: system[1], visit: system[2] }
  return { visit: new RegExp(`^/api/visits/${ID}`).exec(path)?.[1] }
}
