const LEAST_ROOM = 20e6

/** Whether so little room is left that a few photos would not fit any more. */
export async function nearlyFull(): Promise<string> {
  const { quota = Infinity, usage = 0 } = (await navigator.storage?.estimate?.()) ?? {}
  return quota - usage < LEAST_ROOM ? 'nearly' : ''
}

/** Asks the browser to send in the background, where it can, as soon as there is a connection. */
export async function wake() {
  const ready = await navigator.serviceWorker?.getRegistration()
  const sync =
    ready && (ready as unknown as { sync?: { register(tag: string): Promise<void> } }).sync
  await sync?.register('send').catch(() => undefined)
}
