import { expect, test } from 'vitest'
import type { Schemas } from '../api/client'
import { chances } from '../tests/chances'
import { standing } from './confirmations'
import type { Waiting } from './outbox'

const step = (id: string, while_off = false) => ({ id, while_off, done: false, after: '' })
const view = {
  power: 'unknown',
  make_safe: [
    ...[step('bystanders'), step('power_off', true), step('proved_dead', true)],
    ...[step('drained', true), step('cap_on')],
  ],
  power_up: step('power_up'),
} as unknown as Schemas['VisitView']
const STEPS = [...view.make_safe.map(({ id }) => id), 'power_up']

type Said = [string, boolean]
const waiting = (said: Said[]) =>
  said.map(
    ([id, value], at) =>
      ({ id: `${at}`, slot: `safe.${id}`, value, supersedes: null }) as unknown as Waiting,
  )
/** What was last said of a step, since power was on again. */
function last(said: Said[], id: string): boolean {
  const up = said.findLastIndex(([each, value]) => each === 'power_up' && value)
  return said.slice(up + 1).findLast(([each]) => each === id)?.[1] ?? false
}
function drawn(seed: number): Said[] {
  const chance = chances(seed)
  const count = 1 + Math.floor(chance() * 12)
  return Array.from({ length: count }, () => [
    STEPS[Math.floor(chance() * STEPS.length)]!,
    chance() < 0.8,
  ])
}

test('whatever waits, power is off only where it was proved so, since it was last on', () => {
  const seen = new Set<string>()
  for (let seed = 0; seed < 3000; seed++) {
    const said = drawn(seed)
    const { power, done } = standing(view, waiting(said))
    seen.add(power)
    const dead = last(said, 'power_off') && last(said, 'proved_dead')
    expect([said, power === 'off']).toEqual([said, dead])
    if (power === 'on') expect(last(said, 'power_off')).toBe(false)
    expect([said, done.has('power_up')]).toEqual([said, power === 'on'])
    for (const id of ['power_off', 'proved_dead', 'drained'])
      expect([said, id, done.has(id)]).toEqual([said, id, last(said, id)])
  }
  expect([...seen].sort()).toEqual(['off', 'on', 'unknown'])
})

test('what does not hang on power stays as it was said last, and other records change nothing', () => {
  const said: Said[] = [
    ['bystanders', true],
    ['cap_on', true],
    ['power_up', true],
    ['cap_on', false],
  ]
  const note = { id: 'n', slot: 'note', value: 'power_off', supersedes: null } as unknown as Waiting
  const { power, done } = standing(view, [...waiting(said), note])
  expect([power, [...done]]).toEqual(['on', ['bystanders', 'power_up']])
})
