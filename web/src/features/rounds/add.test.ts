import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { AddState, NEW } from './add.svelte'

type Rounds = ConstructorParameters<typeof AddState>[0]
type Answer = { status: number; body: unknown }

const rounds = {
  workspaces: [
    { id: 'looking', name: 'Theirs', may_add: false },
    { id: 'w', name: 'Ours', may_add: true },
  ],
  sites: [
    { id: 'z', name: 'Zinc yard', units: 'us', workspace: 'w', systems: [] },
    { id: 'n', name: 'North', units: 'us', workspace: 'w', systems: [] },
    { id: 't', name: 'A first one', units: 'us', workspace: 'looking', systems: [] },
  ],
} as unknown as Rounds

let sent: { path: string; body: Record<string, unknown> }[]
let answers: (Answer | 'none')[]

beforeEach(() => {
  ;[sent, answers] = [[], []]
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname
    sent.push({ path, body: JSON.parse(await request.text()) as Record<string, unknown> })
    const answer = answers.shift() ?? { status: 200, body: { id: path.split('/').at(-1) } }
    if (answer === 'none') throw new TypeError('no network')
    return new Response(JSON.stringify(answer.body), {
      status: answer.status,
      headers: { 'Content-Type': 'application/json' },
    })
  })
})
afterEach(() => vi.unstubAllGlobals())

const refused = (...paths: string[]): Answer => ({
  status: 422,
  body: { title: 'no', faults: paths.map((path) => ({ path, message: `${path} is wrong` })) },
})
const picked = (name: string, text: string) =>
  ({ currentTarget: { files: [new File([text], name)], value: 'x' } }) as unknown as Parameters<
    AddState['take']
  >[0]

describe('adding a system', () => {
  it('offers the sites where one may add, by name, and presets none', async () => {
    const add = new AddState(rounds)
    expect(add.sites.map((site) => site.name)).toEqual(['North', 'Zinc yard'])
    expect(add.site).toBe('')
    await add.send()
    expect(add.faults.map((fault) => fault.path)).toEqual(['site'])
    expect(sent).toEqual([])
  })

  it('begins a new site first, and tries again under the same ids', async () => {
    const add = new AddState(rounds)
    add.site = NEW
    add.siteName = 'South'
    add.name = 'Barn well'
    answers = [{ status: 200, body: { id: 'new' } }, 'none']
    expect(await add.send()).toBeUndefined()
    expect(add.problem?.title).toBe('No answer from the server')
    answers = [{ status: 200, body: { id: 'new' } }]
    expect(await add.send()).toBe(sent[3]!.path.split('/').at(-1))
    expect(sent[0]!.path).toBe(sent[2]!.path)
    expect(sent[1]!.path).toBe(sent[3]!.path)
    expect(sent[0]!.path).toContain('/workspaces/w/sites/')
    expect(sent[3]!.body).toEqual({ name: 'Barn well', kind: 'well_bladder' })
  })

  it('tells the site’s faults from the system’s, and keeps what was typed', async () => {
    const add = new AddState(rounds)
    add.site = NEW
    answers = [refused('name')]
    await add.send()
    expect(add.faults.map((fault) => fault.path)).toEqual(['site.name'])
    add.site = 'n'
    add.name = 'Taken'
    answers = [refused('name', 'kind')]
    await add.send()
    expect(add.faults.map((fault) => fault.path)).toEqual(['name', 'kind'])
    expect(add.others).toEqual([])
    expect(add.name).toBe('Taken')
  })

  it('takes a file, shows what is wrong in it by path, and refuses what is no JSON', async () => {
    const add = new AddState(rounds)
    await add.take(picked('notes.txt', '{ no'))
    expect(add.problem?.title).toBe('notes.txt is no JSON file')
    await add.take(picked('well.json', '{"format": "zerodip-system"}'))
    expect(add.problem).toBeUndefined()
    expect(add.fileName).toBe('well.json')
    add.site = 'n'
    answers = [refused('system.tanks.0.volume_m3')]
    await add.send()
    expect(sent[0]!.body).toMatchObject({ document: { format: 'zerodip-system' } })
    expect(add.others.map((fault) => fault.path)).toEqual(['system.tanks.0.volume_m3'])
  })
})
