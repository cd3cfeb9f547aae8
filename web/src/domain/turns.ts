import type { Schemas } from '../api/client'

const PARTS = ['', '1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8']

/** Turns in eighths as a person writes them: 1 1/4; clockwise without a sign. */
export function eighths(turns: number): string {
  const count = Math.round(Math.abs(turns) * 8)
  const said = `${Math.floor(count / 8) || ''} ${PARTS[count % 8]}`.trim() || '0'
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
