/** Python with the core in it, as it lay in memory before it was first asked anything: made by this browser, kept by it, and
 * there again in a tenth of the time. It holds nothing of anybody. */
const KEPT = 'zerodip-python'
const REST_MS = 1000

/** What was kept for this core; undefined where there is none. */
export async function keptSnapshot(core: string): Promise<Uint8Array | undefined> {
  try {
    const found = await caches.match(core, { cacheName: KEPT })
    const whole = found?.body?.pipeThrough(new DecompressionStream('gzip'))
    return whole && new Uint8Array(await new Response(whole).arrayBuffer())
  } catch {
    return undefined
  }
}

export async function dropSnapshots() {
  await globalThis.caches?.delete(KEPT).catch(() => undefined)
}

/** Keeps one for the next start, in place of all others, once the worker has had time to answer. Without room, or without a
 * store, Python starts from nothing next time. */
export function keepSnapshot(core: string, made: Uint8Array) {
  setTimeout(() => void keep(core, made).catch(dropSnapshots), REST_MS)
}

async function keep(core: string, made: Uint8Array) {
  await dropSnapshots()
  const small = new Blob([made as BlobPart]).stream().pipeThrough(new CompressionStream('gzip'))
  await (await caches.open(KEPT)).put(core, new Response(await new Response(small).blob()))
}
