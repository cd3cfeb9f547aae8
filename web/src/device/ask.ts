import type { Device } from './device'
import { belongTogether, compare } from './versions'
import { mayLeaveOrStay } from './person'

/** Every question of the page passes here: what the page can answer itself never waits for a network. */
interface WhatIfs {
  whatIf(name: string, asked: string, units: string): Promise<string>
}
let core: WhatIfs | undefined
let device: Device | undefined

/** From now on what-ifs are answered in the page. */
export function answerHere(by: WhatIfs | undefined) {
  core = by
}
/** From now on questions about systems and visits pass the device. */
export function askDevice(one: Device | undefined) {
  device = one
}
export const deviceHere = () => device

const WHAT_IF = /^\/api\/(decide|propose|compare|sizes|trouble)$/

/** A what-if answered in the page, as text; undefined where the server is to be asked. Not for troubles, which go by more. */
export function whatIfHere(name: string, body: unknown, units: string) {
  return core && belongTogether() ? core.whatIf(name, JSON.stringify(body), units) : undefined
}

export async function ask(request: Request): Promise<Response> {
  const { pathname, searchParams } = new URL(request.url)
  const whatIf = request.method === 'POST' && WHAT_IF.exec(pathname)?.[1]
  if (whatIf && core && belongTogether())
    return inCore(core, whatIf, request, searchParams.get('units') ?? 'us')
  if (pathname === '/api/session' && (request.method === 'DELETE' || mayLeaveOrStay()))
    return import('./session').then(({ ofSession }) => ofSession(request))
  const got = (await device?.ask(request)) ?? (await fetch(request))
  compare(got)
  return got
}

async function inCore(by: WhatIfs, name: string, request: Request, units: string) {
  const text = await request.clone().text()
  const body = name === 'trouble' ? await withMet(text) : text
  return body === undefined ? fetch(request) : answered(await by.whatIf(name, body, units))
}
/** A trouble goes by what its workspace has met; undefined where that is not known here. */
async function withMet(text: string): Promise<string | undefined> {
  const { system, ...asked } = JSON.parse(text) as { system?: string | null }
  const met = await device?.metAt(system ?? undefined)
  return met === undefined ? undefined : JSON.stringify({ ...asked, met })
}

/** An answer of the core, as the server would have sent it: the status, and the body on the next line. */
export function answered(text: string): Response {
  const [status, body] = [Number(text.slice(0, 3)), text.slice(4)]
  return new Response(body, { status, headers: { 'Content-Type': 'application/json' } })
}
