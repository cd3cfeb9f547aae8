import { wrap, type Remote } from 'comlink'
import type { Desk } from './core.worker'

let begun: Promise<Remote<Desk>> | undefined

/** Fetches Python and the core, once. Rejects where it cannot be had (an old browser, a torn line): then the server goes on
 * answering, and the next one who asks tries again. */
export function beginCore(): Promise<Remote<Desk>> {
  begun ??= load().catch((error: unknown) => {
    begun = undefined
    throw error
  })
  return begun
}

async function load(): Promise<Remote<Desk>> {
  const worker = new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' })
  const desk = wrap<Desk>(worker)
  const broken = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error('the core did not start'))
  })
  try {
    await Promise.race([desk.ready(), broken])
  } catch (error) {
    worker.terminate()
    throw error
  }
  document.documentElement.dataset.core = 'ready'
  return desk
}
