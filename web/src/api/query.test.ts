import { describe, expect, it } from 'vitest'
import { Query } from './query.svelte'

const answered = <T>(data: T) => ({ data, response: new Response('{}') })

describe('a question asked again', () => {
  it('drops the answer to the older question, whenever it comes', async () => {
    const query = new Query<string>()
    let late: (answer: ReturnType<typeof answered<string>>) => void = () => {}
    const first = query.ask(new Promise((done) => (late = done)))
    expect(await query.ask(Promise.resolve(answered('new')))).toBe(true)
    late(answered('old'))
    expect(await first).toBe(false)
    expect(query.data).toBe('new')
  })
  it('keeps what it knew when there is no answer, and says so', async () => {
    const query = new Query<string>()
    await query.ask(Promise.resolve(answered('known')))
    await query.ask(Promise.reject(new Error('no signal')))
    expect([query.data, query.problem?.status]).toEqual(['known', 0])
  })
})
