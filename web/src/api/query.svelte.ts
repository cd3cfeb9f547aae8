import { outcome, type Problem } from './client'
import { session } from './session.svelte'

type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>

/** One question, asked again and again, and its newest answer: an answer to an older question is dropped. */
export class Query<T> {
  data = $state.raw<T | undefined>()
  problem = $state.raw<Problem | undefined>()
  #newest = 0

  /** Whether the answer was taken: the question was still the newest when it came. */
  async ask(call: Call<T>): Promise<boolean> {
    const number = ++this.#newest
    const { data, problem } = await outcome(call)
    if (number !== this.#newest) return false
    if (problem?.status === 401) session.ended()
    this.problem = problem
    if (!problem) this.data = data
    return true
  }
}
