import { beforeEach, describe, expect, it } from 'vitest'
import { without, withOne, type Waiting } from './outbox'
import { holdWatch, readWatch } from './stopwatch'

const entry = (
  id: string,
  slot: Waiting['slot'],
  value: unknown,
  supersedes: string | null = null,
): Waiting => ({
  id,
  slot,
  value,
  supersedes,
})

describe('the stopwatch', () => {
  beforeEach(() => localStorage.clear())

  it('outlives the page, for its own visit only', () => {
    const watch = { running: true, since: 1000, rest: 12.5 }
    holdWatch('v', watch)
    expect(readWatch('v')).toEqual(watch)
    expect(readWatch('other')).toBeUndefined()
    holdWatch('v', undefined)
    expect(readWatch('v')).toBeUndefined()
  })

  it('begins anew where the device kept nonsense', () => {
    localStorage.setItem('zerodip.watch.v', '{ no')
    expect(readWatch('v')).toBeUndefined()
  })
})

describe('the queue', () => {
  it('replaces what waits for the same slot, and corrects what it would have corrected', () => {
    const queue = [entry('a', 'found.cut_in', 1, 'stored'), entry('b', 'note', 'x')]
    const next = withOne(queue, entry('c', 'found.cut_in', 2, 'a'), undefined)
    expect(next.map((each) => each.id)).toEqual(['b', 'c'])
    expect(next[1]!.supersedes).toBe('stored')
  })

  it('leaves what is being sent, to be corrected in its turn', () => {
    const queue = [entry('a', 'found.cut_in', 1)]
    const next = withOne(queue, entry('c', 'found.cut_in', 2, 'a'), 'a')
    expect(next.map((each) => [each.id, each.supersedes])).toEqual([
      ['a', null],
      ['c', 'a'],
    ])
  })

  it('passes on what a refused entry would have corrected, and not what a kept one was', () => {
    const first = entry('a', 'found.cut_in', 1, 'stored')
    const queue = [first, entry('c', 'found.cut_in', 2, 'a')]
    expect(without(queue, first, false)[0]!.supersedes).toBe('stored')
    expect(without(queue, first, true)[0]!.supersedes).toBe('a')
  })
})
