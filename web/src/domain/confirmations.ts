import type { Schemas } from '../api/client'
import type { Waiting } from './outbox'

export type Power = 'unknown' | 'off' | 'on'

/** The steps confirmed, and how power stands, by the server's last answer and by what still waits to be sent: whoever works
 * without signal must not be kept from draining, nor be told that power is off when it is on. */
export function standing(
  view: Schemas['VisitView'],
  waiting: Waiting[],
): { done: Set<string>; power: Power } {
  const done = new Set(
    [...view.make_safe, view.power_up].filter((step) => step.done).map((step) => step.id),
  )
  let power: Power = view.power
  const whileOff = view.make_safe.filter((step) => step.while_off).map((step) => step.id)
  for (const { slot, value } of waiting) {
    if (!slot.startsWith('safe.')) continue
    const id = slot.slice('safe.'.length)
    if (value) done.add(id)
    else done.delete(id)
    if (id === 'power_up' && value) whileOff.forEach((each) => done.delete(each))
    power = done.has('power_off')
      ? done.has('proved_dead')
        ? 'off'
        : 'unknown'
      : done.has('power_up')
        ? 'on'
        : 'unknown'
    if (power !== 'on') done.delete('power_up')
  }
  return { done, power }
}
