/** Numbers from 0 to 1 that look drawn: the same from the same seed on every run. */
export function chances(seed: number): () => number {
  let state = seed
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32
}
