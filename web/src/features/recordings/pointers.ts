/** Wheel, drag and pinch over a plot, as shares of its width. Gives what ends the listening. */
export function pointed(
  box: HTMLElement,
  does: { zoom: (by: number, at: number) => void; move: (by: number) => void },
): () => void {
  const held = new Map<number, number>()
  const share = (x: number) => {
    const { left, width } = box.getBoundingClientRect()
    return Math.min(Math.max((x - left) / width, 0), 1)
  }
  const apart = () => {
    const [a, b] = [...held.values()]
    return Math.max(Math.abs(a! - b!), 0.02)
  }
  const middle = () => [...held.values()].reduce((sum, each) => sum + each, 0) / held.size

  function wheel(event: WheelEvent) {
    event.preventDefault()
    if (event.shiftKey) does.move(Math.sign(event.deltaY) * 0.1)
    else does.zoom(Math.exp(Math.sign(event.deltaY) * 0.25), share(event.clientX))
  }
  function down(event: PointerEvent) {
    held.set(event.pointerId, share(event.clientX))
  }
  function moved(event: PointerEvent) {
    const before = held.get(event.pointerId)
    if (before === undefined) return
    if (held.size === 1) {
      const now = share(event.clientX)
      does.move(before - now)
      held.set(event.pointerId, now)
      return
    }
    const was = apart()
    held.set(event.pointerId, share(event.clientX))
    does.zoom(was / apart(), middle())
  }
  const up = (event: PointerEvent) => void held.delete(event.pointerId)

  box.addEventListener('wheel', wheel, { passive: false })
  box.addEventListener('pointerdown', down)
  window.addEventListener('pointermove', moved)
  window.addEventListener('pointerup', up)
  window.addEventListener('pointercancel', up)
  return () => {
    box.removeEventListener('wheel', wheel)
    box.removeEventListener('pointerdown', down)
    window.removeEventListener('pointermove', moved)
    window.removeEventListener('pointerup', up)
    window.removeEventListener('pointercancel', up)
  }
}
