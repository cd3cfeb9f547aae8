import { describe, expect, it, vi } from 'vitest'
import { pointed } from './pointers'

function box() {
  const made = document.createElement('div')
  made.getBoundingClientRect = () => ({ left: 0, width: 100 }) as DOMRect
  return made
}
const pointer = (type: string, pointerId: number, clientX: number) =>
  Object.assign(new Event(type, { bubbles: true }), { pointerId, clientX })
const wheel = (deltaY: number, clientX: number, shiftKey = false) =>
  Object.assign(new Event('wheel', { cancelable: true }), { deltaY, clientX, shiftKey })

describe('wheel, drag and pinch', () => {
  it('zooms around the place under the wheel, moves with shift', () => {
    const does = { zoom: vi.fn(), move: vi.fn() }
    const at = box()
    pointed(at, does)
    at.dispatchEvent(wheel(1, 25))
    expect(does.zoom.mock.calls[0]![0]).toBeGreaterThan(1)
    expect(does.zoom.mock.calls[0]![1]).toBeCloseTo(0.25)
    at.dispatchEvent(wheel(-1, 25, true))
    expect(does.move).toHaveBeenCalledWith(-0.1)
  })
  it('moves the line with a finger', () => {
    const does = { zoom: vi.fn(), move: vi.fn() }
    const at = box()
    pointed(at, does)
    at.dispatchEvent(pointer('pointerdown', 1, 50))
    window.dispatchEvent(pointer('pointermove', 1, 30))
    expect(does.move.mock.calls[0]![0]).toBeCloseTo(0.2)
    window.dispatchEvent(pointer('pointerup', 1, 30))
    window.dispatchEvent(pointer('pointermove', 1, 10))
    expect(does.move).toHaveBeenCalledTimes(1)
  })
  it('zooms in where two fingers part, and listens no more when it is left', () => {
    const does = { zoom: vi.fn(), move: vi.fn() }
    const at = box()
    const leave = pointed(at, does)
    at.dispatchEvent(pointer('pointerdown', 1, 40))
    at.dispatchEvent(pointer('pointerdown', 2, 60))
    window.dispatchEvent(pointer('pointermove', 2, 80))
    expect(does.zoom.mock.calls[0]![0]).toBeCloseTo(0.5)
    expect(does.move).not.toHaveBeenCalled()
    leave()
    window.dispatchEvent(pointer('pointermove', 2, 90))
    expect(does.zoom).toHaveBeenCalledTimes(1)
  })
})
