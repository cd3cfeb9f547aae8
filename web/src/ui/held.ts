/** A button that goes on by itself while it is held, after a moment; a press is one step. For `{@attach held(step)}`. */
const AFTER_MS = 450
const EVERY_MS = 80

export function held(step: () => void) {
  return (button: HTMLElement) => {
    let waiting: ReturnType<typeof setTimeout> | undefined
    let going: ReturnType<typeof setInterval> | undefined
    let went = false
    const go = () => {
      went = true
      going = setInterval(step, EVERY_MS)
    }
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return
      end()
      went = false
      waiting = setTimeout(go, AFTER_MS)
    }
    const end = () => {
      clearTimeout(waiting)
      clearInterval(going)
    }
    // A press that went on by itself is not one step more when it ends.
    const click = (event: MouseEvent) => {
      if (!went || event.detail === 0) step()
      went = false
    }
    const listening = new AbortController()
    const { signal } = listening
    button.addEventListener('pointerdown', down, { signal })
    button.addEventListener('click', click, { signal })
    button.addEventListener('contextmenu', (event) => event.preventDefault(), { signal })
    for (const name of ['pointerup', 'pointercancel', 'pointerleave'])
      button.addEventListener(name, end, { signal })
    return () => {
      end()
      listening.abort()
    }
  }
}
