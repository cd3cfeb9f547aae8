import { version } from '../../packed/version.json'

/** Whether this page and the server belong together: both say of what version they are. */
let different = false
let onDifferent: (() => void) | undefined

/** Looks whose version an answer is of. Where it is another, the server alone answers. */
export function compare(answer: Response) {
  const theirs = answer.headers.get('Zerodip-Version')
  if (!theirs || (theirs !== version) === different) return
  different = theirs !== version
  if (different) onDifferent?.()
}
export const belongTogether = () => !different
export function whenDifferent(then: () => void) {
  onDifferent = then
  if (different) then()
}
