import type { Schemas, SystemFile } from '../api/client'
import { whatIfHere } from '../device/ask'
import type { System } from './units'

type Chart = Schemas['Decision']['chart']

/** The picture while a grip is moved: drawn by the core in the page, ahead of the whole judgement. */
export class Picture {
  chart = $state.raw<Chart | undefined>()
  #next: (() => Promise<void>) | undefined
  #drawing = false

  /** Draws a file; of those that come while one is being drawn, the latest. False where the core is not in the page. */
  draw(document: SystemFile, units: System): boolean {
    const here = () => whatIfHere('chart', { document }, units)
    if (this.#drawing) {
      this.#next = () => this.#take(here())
      return true
    }
    const first = here()
    if (first) void this.#take(first)
    return first !== undefined
  }
  async #take(asked: Promise<string> | undefined) {
    this.#drawing = true
    const text = await asked
    if (text?.startsWith('200')) this.chart = JSON.parse(text.slice(4)) as Chart
    this.#drawing = false
    const next = this.#next
    this.#next = undefined
    await next?.()
  }
  /** What was judged is newer. */
  drop() {
    this.#next = undefined
    this.chart = undefined
  }
}
