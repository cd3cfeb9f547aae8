/** Once the page is there and at rest, so that nothing stands in its way: what will be needed in a while. */
const AT_REST_MS = 2500

export function whenAtRest(then: () => void) {
  const idle = window.requestIdleCallback ?? ((last: () => void) => last())
  const waits = setTimeout(() => idle(then), AT_REST_MS)
  return () => clearTimeout(waits)
}
