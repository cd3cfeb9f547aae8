import createClient, { type Middleware } from 'openapi-fetch'
import type { Readable } from 'openapi-typescript-helpers'
import { ask } from '../device/ask'
import { pageToken } from '../device/token'
import type { components, paths } from './generated/schema'

/** The typed client. Paths, bodies and answers are the server's own, generated from its description. */
export type Schemas = Readable<components['schemas']>
export type Problem = Schemas['Problem']
export type Fault = Schemas['FaultOut']
export type SystemFile = Schemas['SystemFile']

const withToken: Middleware = {
  onRequest({ request }) {
    const token = pageToken()
    if (token && request.method !== 'GET') request.headers.set('X-CSRFToken', token)
    return request
  },
}

export const api = createClient<paths>({
  baseUrl: location.origin,
  credentials: 'same-origin',
  fetch: ask,
})
api.use(withToken)

/** The refusal in words, whatever came back: a problem from the server, or no answer at all. */
export function problemOf(error: unknown): Problem {
  if (typeof error === 'object' && error !== null && 'title' in error && 'faults' in error)
    return error as Problem
  return {
    title: 'No answer from the server',
    status: 0,
    detail: 'Nothing is lost; try again.',
    faults: [],
  }
}

/** A refusal taken apart: the faults, which belong beside their fields, and the problem itself where there are none. */
export function parted(problem: Problem | undefined): [Fault[], Problem | undefined] {
  const faults = problem?.faults ?? []
  return [faults, faults.length ? undefined : problem]
}

export type Outcome<T> = { data: T; problem?: undefined } | { data?: undefined; problem: Problem }

/** Awaits a call and gives either its data or the problem; a broken connection is a problem too. */
export async function outcome<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Outcome<T>> {
  try {
    const { data, error, response } = await call
    if (response.ok) return { data: data as T }
    return { problem: { ...problemOf(error), status: response.status } }
  } catch (error) {
    return { problem: problemOf(error) }
  }
}
