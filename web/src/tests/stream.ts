/** A stream that says what a test lets it say. */
export class Stream {
  static readonly CLOSED = 2
  static all: Stream[] = []
  readyState = 1
  onmessage?: (event: { data: string }) => void
  onerror?: () => void
  constructor(readonly url: string) {
    Stream.all.push(this)
  }
  close() {
    this.readyState = Stream.CLOSED
  }
  say(said: object) {
    this.onmessage?.({ data: JSON.stringify(said) })
  }
}
