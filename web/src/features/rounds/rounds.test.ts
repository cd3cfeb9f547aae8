import { describe, expect, it } from 'vitest'
import { dueWords, grouped } from './rounds'

type Sites = Parameters<typeof grouped>[0]
type Choice = Parameters<typeof grouped>[1]

const sites = [
  {
    id: 'n',
    name: 'North',
    systems: [
      { id: 'a', name: 'Well' },
      { id: 'b', name: 'Booster' },
    ],
  },
  {
    id: 's',
    name: 'South',
    systems: [
      { id: 'c', name: 'Cistern' },
      { id: 'd', name: 'Receiver' },
    ],
  },
] as unknown as Sites
const nextCheck = {
  a: { state: 'later', due_at: '2027-03-01T00:00:00Z' },
  b: { state: 'overdue', due_at: '2026-02-01T00:00:00Z' },
  c: { state: 'overdue', due_at: '2026-01-01T00:00:00Z' },
} as unknown as Choice['nextCheck']
const choice: Choice = { open: { d: 'visit' }, nextCheck, search: '', by: 'date' }
const shape = (groups: ReturnType<typeof grouped>) =>
  groups.map((group) => [group.id, ...group.rows.map((row) => row.system.id)])

describe('rounds', () => {
  it('stand by date: what was left open first, then the longest overdue', () => {
    expect(shape(grouped(sites, choice))).toEqual([
      ['open', 'd'],
      ['overdue', 'c', 'b'],
      ['later', 'a'],
    ])
  })

  it('stand by site in the order given, and are searched by site and system', () => {
    expect(shape(grouped(sites, { ...choice, by: 'site' }))).toEqual([
      ['n', 'a', 'b'],
      ['s', 'c', 'd'],
    ])
    expect(shape(grouped(sites, { ...choice, by: 'site', search: ' SOUTH ' }))).toEqual([
      ['s', 'c', 'd'],
    ])
    expect(shape(grouped(sites, { ...choice, search: 'boost' }))).toEqual([['overdue', 'b']])
  })

  it('keep what is retired apart, at the end', () => {
    const old = [
      { ...sites[0]!, systems: [{ ...sites[0]!.systems[0]!, retired: true }] },
      sites[1]!,
    ]
    expect(shape(grouped(old, { ...choice, by: 'site' }))).toEqual([
      ['s', 'c', 'd'],
      ['retired', 'a'],
    ])
  })

  it('say when the next check is', () => {
    expect(dueWords(nextCheck.b)).toMatch(/^overdue since .*2026/)
    expect(dueWords(nextCheck.a)).toMatch(/^due .*2027/)
    expect(dueWords(undefined)).toBe('')
  })
})
