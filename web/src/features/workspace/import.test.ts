import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ImportState } from './import.svelte'

let sent: string[]
let answers: { status?: number; body: unknown }[]

beforeEach(() => {
  ;[sent, answers] = [[], []]
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname, search } = new URL(request.url)
    sent.push(`${request.method} ${pathname.split('/').at(-1)}${search}`)
    const { status = 200, body } = answers.shift() ?? { body: [] }
    const headers = { 'Content-Type': 'application/json' }
    return new Response(status === 204 ? null : JSON.stringify(body), { status, headers })
  })
})
afterEach(() => vi.unstubAllGlobals())

const at = (state: string, done: number, counts: Record<string, number> = {}) => ({
  body: { id: 'i', workspace: 'w', name: 'old.json', state, total: 4, done, counts },
})
const file = () => new File(['{}'], 'old.json')

describe('taking in a file', () => {
  it('steps until it is checked, then shows what is refused', async () => {
    answers = [
      at('checking', 0),
      at('checking', 2),
      at('ready', 4, { refused: 1, added: 3 }),
      { body: [{ number: 3 }] },
    ]
    const of = new ImportState('w')
    await of.begin(file())
    expect(sent.slice(1)).toEqual([
      'POST step',
      'POST step',
      'GET pieces?units=us&after=-1&change=refused',
    ])
    expect(of.pieces).toHaveLength(1)
    expect(of.mayTake).toBe(false)
  })
  it('is taken whole and finished', async () => {
    answers = [at('ready', 4, { added: 4 }), { body: [] }]
    const of = new ImportState('w')
    await of.begin(file())
    expect(of.mayTake).toBe(true)
    answers = [at('taken', 0, { added: 4 }), at('done', 4, { added: 4 })]
    await of.take()
    expect(of.at?.state).toBe('done')
  })
  it('keeps the reasons when the file is refused', async () => {
    answers = [
      {
        status: 422,
        body: {
          title: 'no',
          status: 422,
          detail: '',
          faults: [{ path: 'file', message: 'line 3' }],
        },
      },
    ]
    const of = new ImportState('w')
    await of.begin(file())
    expect(of.at).toBeUndefined()
    expect(of.problem?.faults[0]?.message).toBe('line 3')
    expect(sent).toHaveLength(1)
  })
  it('stops where there is no answer, goes on, and is let go', async () => {
    answers = [at('checking', 0), { status: 503, body: {} }]
    const of = new ImportState('w')
    await of.begin(file())
    expect(of.problem?.status).toBe(503)
    answers = [at('ready', 4, { same: 4 })]
    await of.goOn()
    expect(of.at?.state).toBe('ready')
    expect(of.mayTake).toBe(false)
    answers = [{ status: 204, body: null }]
    await of.cancel()
    expect(of.at).toBeUndefined()
    expect(sent.at(-1)).toBe('DELETE i')
  })
})
