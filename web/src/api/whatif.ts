import { whatIfHere } from '../device/ask'
import { outcome, type Outcome, type Problem } from './client'

type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>

/** Asks a what-if of the core in the page; of the server where the core is not there (`otherwise`). */
export async function whatIf<T>(
  name: string,
  body: unknown,
  units: string,
  otherwise: () => Call<T>,
): Promise<Outcome<T>> {
  const here = whatIfHere(name, body, units)
  if (!here) return outcome(otherwise())
  const text = await here
  const said = JSON.parse(text.slice(4)) as unknown
  return text.startsWith('200') ? { data: said as T } : { problem: said as Problem }
}
