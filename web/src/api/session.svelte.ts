import { api, outcome, type Problem, type Schemas } from './client'

/** Who is signed in. `known` is false until the server has been asked. */
class Session {
  known = $state(false)
  /** Nobody is known on this device, and the server is not reached: signing in has to wait. */
  away = $state(false)
  /** Once entered, the pages stay: a session that ends in between must not take what is typed with it. */
  entered = $state(false)
  current = $state<Schemas['SessionOut']>({ signed_in: false, name: '', demo: false, needs: '' })

  async ask() {
    const { data } = await outcome(api.GET('/api/session'))
    if (data) this.#enter(data)
    this.away = !data
    this.known = true
  }
  async signIn(username: string, password: string): Promise<Problem | undefined> {
    return this.#entered(await outcome(api.POST('/api/session', { body: { username, password } })))
  }
  /** The second step, where there is a second factor. */
  async showCode(code: string): Promise<Problem | undefined> {
    return this.#entered(await outcome(api.POST('/api/session/code', { body: { code } })))
  }
  async enterDemo(): Promise<Problem | undefined> {
    return this.#entered(await outcome(api.POST('/api/session/demo')))
  }
  async signOut() {
    await outcome(api.DELETE('/api/session'))
    location.assign('/')
  }
  /** Back to name and password, or on without what was asked for. */
  dismiss() {
    this.current = { ...this.current, needs: '' }
  }
  /** Called when the server says that the session has ended: what is typed stays, the sign-in page comes up over it. */
  ended() {
    this.current = { ...this.current, signed_in: false }
  }
  #enter(session: Schemas['SessionOut']) {
    this.current = session
    this.entered ||= session.signed_in
  }
  #entered({ data, problem }: Awaited<ReturnType<typeof outcome<Schemas['SessionOut']>>>) {
    if (data) this.#enter(data)
    return problem
  }
}

export const session = new Session()
