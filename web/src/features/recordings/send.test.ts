import { beforeEach, describe, expect, it, vi } from 'vitest'

const put = vi.hoisted(() => vi.fn())
vi.mock('../../api/client', async (original) => ({
  ...(await original<object>()),
  api: { PUT: put },
}))
import { sendRecording } from './send'

const SIZE = 10
const row = (parts: number[]) => ({
  data: { parts, part_size: SIZE, state: 'coming' },
  response: new Response(),
})
const sentParts = () =>
  put.mock.calls
    .filter(([path]) => String(path).endsWith('{number}'))
    .map(([, options]) => (options as { params: { path: { number: number } } }).params.path.number)

describe('a file goes in parts', () => {
  beforeEach(() => put.mockReset())
  const file = new File(['x'.repeat(35)], 'week.csv')

  it('sends those that are not there yet, and tells how far it is', async () => {
    put.mockResolvedValue(row([]))
    put.mockResolvedValueOnce(row([1]))
    const told: number[] = []
    await sendRecording(
      's',
      'r',
      file,
      (share) => told.push(share),
      () => true,
    )
    expect(sentParts()).toEqual([0, 2, 3])
    expect(told.at(-1)).toBe(1)
  })
  it('stops where it is told to', async () => {
    put.mockResolvedValue(row([]))
    let left = 2
    await sendRecording(
      's',
      'r',
      file,
      () => {},
      () => left-- > 0,
    )
    expect(sentParts()).toEqual([0, 1])
  })
  it('gives the problem of a part that was refused, and sends no further', async () => {
    put.mockResolvedValueOnce(row([]))
    put.mockResolvedValueOnce({
      error: { title: 'Too large', status: 413, detail: '', faults: [] },
      response: new Response(null, { status: 413 }),
    })
    const { problem } = await sendRecording(
      's',
      'r',
      file,
      () => {},
      () => true,
    )
    expect(problem?.title).toBe('Too large')
    expect(sentParts()).toEqual([0])
  })
})
