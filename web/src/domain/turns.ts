import type { Schemas } from '../api/client'

/** The finest that a person turns by eye. */
const PARTS = 16
const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b))

/** Turns as a person writes them: 1 1/4; clockwise without a sign. */
export function turnWords(turns: number): string {
  const count = Math.round(Math.abs(turns) * PARTS)
  const [whole, rest] = [Math.floor(count / PARTS), count % PARTS]
  const shared = divisor(PARTS, rest)
  const part = rest ? `${rest / shared}/${PARTS / shared}` : ''
  const said = `${whole || ''} ${part}`.trim() || '0'
  return turns < 0 ? `−${said}` : said
}

/** Which way and how far, for reading at arm's length. */
export function way(turns: number): string {
  return turns === 0 ? 'not turned' : turns > 0 ? 'clockwise' : 'anticlockwise'
}

/** The turns proposed for every nut of the switch, in order; none where a nut is left alone. */
export function proposed(set: Pick<Schemas['SetView'], 'nuts' | 'turns'>): number[] {
  return set.nuts.map(({ nut }) => set.turns.find((turn) => turn.nut === nut)?.turns ?? 0)
}
