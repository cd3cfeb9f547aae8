import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { held } from './held'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

function button() {
  const made = document.createElement('button')
  const steps = vi.fn()
  const let_go = held(steps)(made)
  const say = (name: string, detail = 1) =>
    made.dispatchEvent(
      name === 'click' ? new MouseEvent(name, { detail }) : new MouseEvent(name, { button: 0 }),
    )
  return { say, steps, let_go }
}

test('a press is one step, by finger or by key', () => {
  const { say, steps } = button()
  for (const name of ['pointerdown', 'pointerup', 'click']) say(name)
  say('click', 0)
  vi.advanceTimersByTime(2000)
  expect(steps).toHaveBeenCalledTimes(2)
})

test('held it goes on until it is let go, which is no step more', () => {
  const { say, steps, let_go } = button()
  say('pointerdown')
  vi.advanceTimersByTime(450 + 80 * 5)
  for (const name of ['pointerup', 'pointerleave', 'click']) say(name)
  vi.advanceTimersByTime(2000)
  expect(steps).toHaveBeenCalledTimes(5)
  say('click', 0)
  expect(steps).toHaveBeenCalledTimes(6)
  say('pointerdown')
  let_go()
  vi.advanceTimersByTime(2000)
  expect(steps).toHaveBeenCalledTimes(6)
})
