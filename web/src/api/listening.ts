const AGAIN_MS = 1000
const TICK_MS = 250
/** After so long without a word the server itself is taken for lost; it may take longer over its first. */
const SILENT_MS = 1800
const FIRST_MS = 5000
export const NO_ANSWER = 'The server does not answer.'

/** A stream of messages, listened to until it is stopped: asked for anew where it broke, its silence told. */
export class Listening<Said> {
  #stream!: EventSource
  #deadline = performance.now() + FIRST_MS
  #timer: ReturnType<typeof setInterval>
  #stopped = false

  constructor(
    readonly url: string,
    readonly onsaid: (said: Said) => void,
    readonly onsilent: () => void,
    /** What comes before it is asked for once more. */
    readonly before: () => Promise<unknown> = () => Promise.resolve(),
  ) {
    this.#listen()
    this.#timer = setInterval(() => {
      if (performance.now() > this.#deadline) this.onsilent()
    }, TICK_MS)
  }
  stop() {
    this.#stopped = true
    this.#stream.close()
    clearInterval(this.#timer)
  }
  #listen() {
    const stream = new EventSource(this.url)
    this.#stream = stream
    stream.onmessage = (event) => {
      this.#deadline = performance.now() + SILENT_MS
      this.onsaid(JSON.parse(event.data as string) as Said)
    }
    stream.onerror = () => {
      // The browser goes on by itself, but not after an answer that was no stream.
      if (stream.readyState === EventSource.CLOSED && this.#stream === stream)
        setTimeout(() => void this.#anew(), AGAIN_MS)
    }
  }
  async #anew() {
    if (!this.#stopped) await this.before()
    if (!this.#stopped) this.#listen()
  }
}
